import { ask, form, recordForm } from './components/form.ts';
import { signIn } from './components/sign-in.ts';
import { signUp } from './components/sign-up.ts';

/** What shows the components that people type into and send: a part by itself, since many pages have none. */
export const formParts = { form, ask, recordForm, signIn, signUp };
export type FormParts = typeof formParts;
