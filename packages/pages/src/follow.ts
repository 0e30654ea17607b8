import type { ChangeAnchor } from '@pallmist/app/view';
import type { LivePage } from './live-page.ts';

/** Makes a change in place when its link is clicked plainly; with a modifier key the link stays a link. */
export function follow(live: LivePage, anchor: ChangeAnchor): (event: MouseEvent) => void {
  return (event) => {
    if (!live.hydrated || event.button !== 0 || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return;
    event.preventDefault();
    live.change(anchor.change);
  };
}
