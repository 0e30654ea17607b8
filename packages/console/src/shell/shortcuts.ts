/** What the keys of the workbench do, wherever the focus is. */
interface Shortcuts {
  undo: () => void;
  redo: () => void;
  search: () => void;
  keys: () => void;
  save: () => void;
}

/** A listener for the keys of the workbench. In a box, Ctrl+Z is the box’s own as long as it has something to undo. */
export function shortcuts(actions: Shortcuts): (event: KeyboardEvent) => void {
  return (event) => {
    const key = event.key.toLowerCase();
    const target = event.target instanceof HTMLElement ? event.target : undefined;
    const inEditor = target?.closest('[data-own-undo]') !== null && target !== undefined;
    const inBox = target !== undefined && (target.isContentEditable || /^(?:INPUT|TEXTAREA|SELECT)$/.test(target.tagName));
    const run = (action: () => void) => {
      event.preventDefault();
      action();
    };
    if (event.ctrlKey || event.metaKey) {
      if (key === 'k') run(actions.search);
      else if (key === 's') run(actions.save);
      else if (inEditor) return;
      else if (key === 'z' && event.shiftKey) run(actions.redo);
      else if (key === 'y') run(actions.redo);
      else if (key === 'z') run(actions.undo);
    } else if (event.key === '?' && !inBox) run(actions.keys);
  };
}
