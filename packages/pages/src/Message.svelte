<script lang="ts">
  import SubmitButton from './components/SubmitButton.svelte';
  import Text from './components/Text.svelte';
  import Frame from './Frame.svelte';
  import type { MessagePage } from './message-page.ts';

  const { message }: { message: MessagePage } = $props();
</script>

<Frame say={message.say} appTitle={message.appTitle} home={message.home} navigation={message.navigation} draft={message.draft}>
  <Text node={{ show: 'heading', level: 1, text: message.title }} />
  {#each message.sentences as text (text)}<Text node={{ show: 'text', text }} />{/each}
  {#if message.typed}
    <ul class="typed">
      {#each message.typed as text, index (index)}<li>{text}</li>{/each}
    </ul>
  {/if}
  {#if message.picture}<img src={message.picture.source} alt={message.picture.alternative} width="220" height="220" />{/if}
  {#if message.action}
    <form method="post" action={message.action.to}>
      <SubmitButton tone="removes" name={message.action.name} value={message.action.value}>{message.action.button}</SubmitButton>
    </form>
  {/if}
  <ul>
    {#each message.ways as way (way.href)}<li><a href={way.href}>{way.text}</a></li>{/each}
  </ul>
</Frame>
