import { useQuery } from "@tanstack/react-query";
import { Marked, type Tokens } from "marked";
import { type MouseEvent, useEffect, useRef } from "react";
import { useLocation, useNavigate, useParams } from "react-router";
import { Empty, Loading } from "../shared/Notes";
import { useWhereabouts } from "../shared/Trail";
import { linkOf, pageOf, slugOf } from "./pages";

/** A page of the documentation, served with the console: no network is needed to read it. */
export function HelpPage() {
  const name = useParams()["*"] || "FIRST-TEMPLATE";
  const navigate = useNavigate();
  const { hash } = useLocation();
  const frame = useRef<HTMLElement>(null);
  const page = useQuery({
    queryKey: ["help", name],
    queryFn: async () => {
      const text = await pageOf(name);
      return text === null ? null : htmlOf(name, text);
    },
    staleTime: Number.POSITIVE_INFINITY,
  });
  const title = page.data?.title ?? "Help";
  useWhereabouts(title, [{ name: title, to: `/help/${name}` }]);
  const html = page.data?.html;
  useEffect(() => {
    if (html !== undefined) {
      const target = hash === "" ? null : document.getElementById(decodeURIComponent(hash.slice(1)));
      if (target) {
        target.scrollIntoView();
      } else {
        frame.current?.parentElement?.scrollTo(0, 0);
      }
    }
  }, [html, hash]);

  // Links between the pages stay within the console.
  function follow(event: MouseEvent) {
    const link = (event.target as HTMLElement).closest("a");
    const href = link?.getAttribute("href") ?? "";
    if (href.startsWith("/help/") && !event.ctrlKey && !event.metaKey && !event.shiftKey) {
      event.preventDefault();
      navigate(href);
    }
  }

  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be scrollable by keys.
    <main className="page" tabIndex={0}>
      {page.isPending && <Loading what="the page" />}
      {page.data === null && <Empty>There is no such page in the help.</Empty>}
      {html !== undefined && (
        // biome-ignore lint/a11y/useKeyWithClickEvents: only links are followed, and they have their keys.
        <article
          ref={frame}
          className="help"
          onClick={follow}
          // biome-ignore lint/security/noDangerouslySetInnerHtml: it is made from the project's own docs when it is built.
          dangerouslySetInnerHTML={{ __html: html }}
        />
      )}
    </main>
  );
}

function htmlOf(name: string, text: string): { title: string; html: string } {
  const marked = new Marked({
    gfm: true,
    walkTokens: (token) => {
      if (token.type === "link" || token.type === "image") {
        token.href = linkOf(`${name}.md`, token.href as string);
      }
    },
    renderer: {
      heading(token: Tokens.Heading) {
        return `<h${token.depth} id="${slugOf(token.text)}">${this.parser.parseInline(token.tokens)}</h${token.depth}>`;
      },
      // What is wider than the page is scrolled by keys, too.
      code(token: Tokens.Code) {
        const escaped = token.text.replace(/&/g, "&amp;").replace(/</g, "&lt;");
        return `<pre tabindex="0"><code>${escaped}</code></pre>`;
      },
      link(token: Tokens.Link) {
        const inner = this.parser.parseInline(token.tokens);
        return token.href === "" ? inner : `<a href="${token.href}">${inner}</a>`;
      },
      table(token: Tokens.Table) {
        const cells = (row: Tokens.TableCell[], tag: string) =>
          `<tr>${row.map((cell) => `<${tag}>${this.parser.parseInline(cell.tokens)}</${tag}>`).join("")}</tr>`;
        return `<table class="sheet"><thead>${cells(token.header, "th")}</thead><tbody>${token.rows.map((row) => cells(row, "td")).join("")}</tbody></table>`;
      },
    },
  });
  return { title: /^# (.+)$/m.exec(text)?.[1] ?? name, html: marked.parse(text, { async: false }) };
}
