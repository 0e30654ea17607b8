<script lang="ts">
  import ScreenPage from '../controls/ScreenPage.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import Gates from './Gates.svelte';
  import PeopleList from './PeopleList.svelte';
  import SignInSettings from './SignInSettings.svelte';

  const { draft }: { draft: Draft } = $props();
</script>

<ScreenPage columns>
  <PeopleList {draft} />
  <div>
    <Gates {draft} />
    <SignInSettings {draft} />
  </div>
</ScreenPage>
