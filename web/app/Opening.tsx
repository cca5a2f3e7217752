/** What stands on the page while its own code is fetched. */
export function Opening() {
  return (
    <div className="grid h-screen place-items-center" role="status" aria-label="Opening">
      <span className="loading loading-dots" />
    </div>
  );
}
