/** A small button that moves the axle to where a row of a table has it. */
export function Go({ to }: { to: () => void }) {
  return (
    <button type="button" className="go" title="Move the axle there" onClick={to}>
      Go
    </button>
  );
}
