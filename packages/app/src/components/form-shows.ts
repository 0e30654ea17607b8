import { show as form } from './form/show.ts';
import { show as filters } from './filters/show.ts';
import { show as ask } from './ask/show.ts';
import { show as signIn } from './sign-in/show.ts';
import { show as signUp } from './sign-up/show.ts';

/** How the components are shown that people type into and send: a part by itself, since many pages have none. */
export const formShows = {
  form,
  ask,
  filters,
  'sign-in': signIn,
  'sign-up': signUp,
};
