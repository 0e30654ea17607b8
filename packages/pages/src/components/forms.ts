import Ask from './Ask.svelte';
import { drawers } from './drawers.ts';
import Form from './Form.svelte';
import RowEditor from './RowEditor.svelte';
import SignIn from './SignIn.svelte';
import SignUp from './SignUp.svelte';

export { formParts } from '@pallmist/app/forms';

// What people type into and send.
Object.assign(drawers, { form: Form, ask: Ask, 'sign-in': SignIn, 'sign-up': SignUp, rowEditor: RowEditor });
