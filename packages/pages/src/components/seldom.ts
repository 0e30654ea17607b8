import { drawers } from './drawers.ts';
import Inputs from './Inputs.svelte';
import Language from './Language.svelte';
import List from './List.svelte';
import Range from './Range.svelte';
import Share from './Share.svelte';

// What stands on few pages.
Object.assign(drawers, { inputs: Inputs, language: Language, list: List, range: Range, share: Share });
