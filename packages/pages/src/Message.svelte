<script lang="ts">
  import Frame from './Frame.svelte';
  import type { MessagePage } from './message-page.ts';

  const { message }: { message: MessagePage } = $props();
</script>

<Frame appTitle={message.appTitle} home={message.home} navigation={message.navigation} draft={message.draft}>
  <h1>{message.title}</h1>
  {#each message.sentences as sentence (sentence)}<p>{sentence}</p>{/each}
  <ul>
    {#each message.ways as way (way.href)}<li><a href={way.href}>{way.text}</a></li>{/each}
  </ul>
</Frame>

<style>
  h1 {
    font-family: var(--text);
    font-size: 2rem;
    line-height: 1.2;
  }
  p {
    max-width: 42rem;
    overflow-wrap: anywhere;
  }
</style>
