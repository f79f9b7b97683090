import { Link } from "@/ui/text/Link";

export default function NotFound() {
  return (
    <div className="px-4 py-16 md:px-8">
      <h1 className="text-2xl font-semibold">There is nothing here</h1>
      <p className="mt-2">
        The number or tag may be misspelt. Go to the{" "}
        <Link className="link" href="/">
          board
        </Link>{" "}
        or search the{" "}
        <Link className="link" href="/plant">
          plant register
        </Link>
        .
      </p>
    </div>
  );
}
