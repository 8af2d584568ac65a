/** What is asked before a light is shown that flashes too often. */

export function Ask({ of }: { of: { answer: (isShown: boolean) => void } }) {
  return (
    <div class="ask" role="alertdialog" aria-label="Flashes">
      <p>This light flashes more than three times a second. Such flashes can hurt people with photosensitive epilepsy.</p>
      <button onClick={() => of.answer(false)}>Show it dimmed</button>
      <button onClick={() => of.answer(true)}>Show it as it is</button>
    </div>
  );
}
