interface WithState extends Window {
  state: { set(changes: { page: number }): unknown };
}

/**
 * Changes the page number of live state as fast as timers come. A driver sends it to the page as text.
 * @param milliseconds how long
 * @returns the last number
 */
export async function burst(milliseconds: number): Promise<number> {
  const { state } = window as unknown as WithState;
  let number = 1;
  for (const end = performance.now() + milliseconds; performance.now() < end;) {
    for (let i = 0; i < 5; i++) state.set({ page: ++number });
    await new Promise((resolve) => setTimeout(resolve, 4));
  }
  return number;
}
