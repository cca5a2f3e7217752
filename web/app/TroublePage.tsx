import { Link, useRouteError } from "react-router";

export function TroublePage() {
  const error = useRouteError();
  return (
    <Notice title="This page stopped working">
      <p>{error instanceof Error ? error.message : "An unexpected error."}</p>
      <p className="mt-2">What was saved is safe. Load the page again to go on.</p>
    </Notice>
  );
}

export function LostPage() {
  return (
    <Notice title="There is nothing here">
      <p>The address leads nowhere; the piece may have been renamed or put away.</p>
    </Notice>
  );
}

function Notice({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <main className="grid h-full place-items-center bg-base-200 p-8">
      <div className="max-w-md">
        <h1 className="mb-3 text-2xl font-semibold">{title}</h1>
        {children}
        <Link to="/" className="btn btn-primary mt-6">
          Back to the shelf
        </Link>
      </div>
    </main>
  );
}
