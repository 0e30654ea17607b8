<script lang="ts">
  import type { Links } from '@pallmist/api';
  import Button from '../controls/Button.svelte';
  import RowForm from '../controls/RowForm.svelte';
  import Table from '../controls/Table.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import { client, explain } from '../service/calls.ts';
  import { me } from '../service/me.svelte.ts';
  import Failure from '../controls/Failure.svelte';
  import Note from '../controls/Note.svelte';

  interface Props {
    app: string;
    /** Where the published app is, without a “/” at the end. */
    mount: string;
    printed: Links['printed'];
    onchange: (links: Links) => void;
  }
  const { app, mount, printed, onchange }: Props = $props();
  let address = $state('');
  let note = $state('');
  let said: string | undefined = $state();

  async function doing(work: () => Promise<Links>) {
    said = undefined;
    try {
      onchange(await work());
    } catch (error) {
      said = explain(error);
    }
  }
  const add = () =>
    doing(async () => {
      const links = await client.call('addPrinted', { app }, { address, note });
      address = note = '';
      return links;
    });
  const forget = (id: string) =>
    doing(async () => {
      await client.call('removePrinted', { app, id });
      return client.call('getLinks', { app });
    });
  const code = (of: string, kind: 'svg' | 'png') => `${mount}/~qr.${kind}?of=${encodeURIComponent(of)}`;
</script>

<Note>
  Nobody can change what is printed, so publishing cannot change what these addresses mean. Note an address here before you print it, then
  save its QR code.
</Note>
<Failure text={said} />
{#if printed.length > 0}
  <Table head={['Address', 'Printed on', 'Noted', 'QR code', '~Remove']}>
    {#each printed as one (one.id)}
      <tr>
        <td><code>{one.address}</code></td>
        <td>{one.note}</td>
        <td>{one.at.slice(0, 10)}, {one.by}</td>
        <td>
          <a href={code(one.address, 'svg')} download aria-label="QR code of {one.address} as SVG">SVG</a>
          <a href={code(one.address, 'png')} download aria-label="QR code of {one.address} as PNG">PNG</a>
        </td>
        <td class="number"
          >{#if me.mayChange}<Button small look="danger" aria-label="Forget {one.address}" onclick={() => forget(one.id)}>Forget</Button
            >{/if}</td
        >
      </tr>
    {/each}
  </Table>
{/if}
{#if me.mayChange}
  <RowForm label="Note a printed address" onsubmit={add}>
    <TextBox label="Printed address" code required value={address} onset={(text) => (address = text)} />
    <TextBox label="Printed on" required placeholder="Plant labels, spring 2026" value={note} onset={(text) => (note = text)} />
    <Button type="submit">Note it</Button>
  </RowForm>
{/if}

<style>
  code {
    font-family: var(--code);
  }
</style>
