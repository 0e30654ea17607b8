import type { WhoAmI } from '@pallmist/api';

/** Who works in this console. */
class Me {
  builder: WhoAmI | undefined = $state.raw();

  /** Whether they may change apps; a viewer may look and try. */
  get mayChange(): boolean {
    return this.builder !== undefined && this.builder.role !== 'viewer';
  }

  /** The origin at which drafts are shown; undefined where the service has none yet. */
  get drafts(): string | undefined {
    return this.builder?.drafts ?? undefined;
  }

  get isOwner(): boolean {
    return this.builder?.role === 'owner';
  }
}

export const me = new Me();
