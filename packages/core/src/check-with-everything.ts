import { checkAppFile as check, type CheckedApp } from './definition/check/check-app.ts';
import { isSlowPattern } from './definition/check/slow-pattern.ts';

/** Checks the text of an app file (YAML or JSON), slow patterns too. Never throws for what the text says. */
export function checkAppFile(text: string): CheckedApp {
  return check(text, { isSlowPattern });
}
