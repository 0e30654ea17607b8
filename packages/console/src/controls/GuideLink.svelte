<script lang="ts">
  interface Props {
    /** A page of the guides and a heading on it, such as `parameters#date`. */
    to: string;
    /** What it is about, for screen readers. */
    about: string;
  }
  const { to, about }: Props = $props();
</script>

<a href="/~/docs/{to}" target="_blank" rel="noopener" aria-label="Guide: {about}">Guide</a>

<style>
  a {
    font: 400 0.8125rem var(--plain);
    white-space: nowrap;
  }
</style>
