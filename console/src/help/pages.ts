/** The pages of docs/ that a clerk reads, as the build found them, by name: FIRST-TEMPLATE, templates/fields. */
const files = import.meta.glob<string>(
  [
    "../../../docs/FIRST-TEMPLATE.md",
    "../../../docs/REVIEW.md",
    "../../../docs/POSTING.md",
    "../../../docs/CODING.md",
    "../../../docs/DELIVERY.md",
    "../../../docs/INTAKE.md",
    "../../../docs/SCHEDULES.md",
    "../../../docs/ELECTRONIC.md",
    "../../../docs/VENDORS.md",
    "../../../docs/PEOPLE.md",
    "../../../docs/TEMPLATES.md",
    "../../../docs/templates/*.md",
  ],
  { query: "?raw", import: "default" },
);

const pictures = import.meta.glob<string>("../../../docs/screenshots/*.png", {
  query: "?url",
  import: "default",
  eager: true,
});

const ROOT = "../../../docs/";

/** The Markdown of a page; null if there is none of that name. */
export async function pageOf(name: string): Promise<string | null> {
  return (await files[`${ROOT}${name}.md`]?.()) ?? null;
}

/** Where a link of a page leads in the console; what is no page of the help stays as it is. */
export function linkOf(from: string, href: string): string {
  if (/^[a-z]+:|^\//.test(href)) {
    return href;
  }
  const { pathname, hash } = new URL(href, `http://help/${from}`);
  const target = pathname.slice(1);
  if (pictures[`${ROOT}${target}`] !== undefined) {
    return pictures[`${ROOT}${target}`] as string;
  }
  return target.endsWith(".md") && files[ROOT + target] !== undefined
    ? `/help/${target.slice(0, -".md".length)}${hash}`
    : target === from
      ? hash
      : "";
}

/** A heading's name in the address, as the pages' own links write it: "Header fields" is header-fields. */
export const slugOf = (heading: string) =>
  heading
    .toLowerCase()
    .replace(/[^\p{L}\p{N} -]/gu, "")
    .replace(/ /g, "-");
