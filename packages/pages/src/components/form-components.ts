import Form from './Form.svelte';
import ParametersForm from './ParametersForm.svelte';
import { renderers } from './renderers.ts';
import { rowEditor } from './row-editor.ts';
import RowEditor from './RowEditor.svelte';
import SignIn from './SignIn.svelte';
import SignUp from './SignUp.svelte';

export { formShows } from '@pallmist/app/form-shows';

/** What people type into and send. */
export const formRenderers = { ask: ParametersForm, filters: ParametersForm, form: Form, 'sign-in': SignIn, 'sign-up': SignUp };

Object.assign(renderers, formRenderers);
rowEditor.component = RowEditor;
