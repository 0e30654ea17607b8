import '@pallmist/pages/tokens.css';
import './shell/console.css';
import { mount } from 'svelte';
import Console from './Console.svelte';

const target = document.getElementById('console');
if (target) mount(Console, { target });
