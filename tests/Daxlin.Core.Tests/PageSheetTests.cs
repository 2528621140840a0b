using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json.Nodes;
using Daxlin.Core.Capture;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Testing;

namespace Daxlin.Core.Tests;

/// <summary>Typewritten pages, each with all that is captured from them and where it stands, in a file that reads as examples.</summary>
public class PageSheetTests
{
    private const string Sound = """
        {
          "name": "sheet", "vendor": "Slipway", "reads": { "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," }, "recognise": { "must": ["Slipway"] },
          "fields": { "invoiceNumber": { "where": { "always": "1" } }, "invoiceDate": { "where": { "always": "14.03.2026" } }, "total": { "where": { "always": "1.00" } } }
        }
        """;

    private const string Block = """{ "name": "goods", "closes": ["Total"], "row": { "begins": { "filled": "amount" } } }""";

    public static TheoryData<string> Titles => [.. Cases().Select(one => one.Title)];

    /// <summary>Each page of Sheets/pages.txt comes out as stands below it: values with the typewriter's columns that they stand on, and what is told.</summary>
    [Theory]
    [MemberData(nameof(Titles))]
    public void A_page_is_captured_like_this(string title)
    {
        var (_, template, page, expected) = Cases().Single(one => one.Title == title);
        Assert.Equal(expected, string.Join('\n', Told(Typewriter.Set(page), TemplateReader.Read(template))));
    }

    private static IEnumerable<string> Told(ImmutableArray<Page> pages, Template template)
    {
        var captured = InvoiceCapture.Capture(pages, template);
        foreach (var value in captured.Fields.Where(value => !value.Trace.Places.IsEmpty))
            yield return $"{value.Name}: {Placed(value)}";
        foreach (var line in captured.Lines.Concat(captured.Taxes))
            yield return $"{line.Block}: {string.Join(" | ", line.Cells.Select(Placed))}";
        foreach (var finding in captured.Findings)
            yield return $"! {finding.Message}";
    }

    /// <summary>A value with the page, unless it is the first, and the first and last column of the typewriter that it stands on.</summary>
    private static string Placed(CapturedValue value) => value.Trace.Places.IsEmpty ? value.Value
        : $"{value.Value} ({string.Join(", ", value.Trace.Places.Select(place => $"{(place.Page == 1 ? "" : $"page {place.Page}, ")}{Column(place.Box.Left)}–{Column(place.Box.Right)}"))})";

    private static string Column(double x) => Math.Round((x - 36) / 6, 1).ToString(CultureInfo.InvariantCulture);

    /// <summary>Cases begin with <c># title</c>; then keys of the template, of its fields or of its one block; the page; what comes out.</summary>
    private static IEnumerable<(string Title, string Template, string Page, string Expected)> Cases()
    {
        foreach (var one in File.ReadAllText(Repository.Path("tests/Daxlin.Core.Tests/Sheets/pages.txt")).Split("\n# ").Skip(1))
        {
            var (said, page, expected) = one.Split("\n---\n") is [var first, var second, var third] ? (first.Split('\n'), second, third) : throw new FormatException(one);
            var template = JsonNode.Parse(Sound)!.AsObject();
            foreach (var line in said.Skip(1))
            {
                var (place, keys) = line.Split(": ", 2) is [var before, var after] ? (before, after) : throw new FormatException(line);
                if (place == "block" && template["blocks"] is null)
                    template["blocks"] = new JsonArray(JsonNode.Parse(Block));
                var into = place switch { "template" => template, "fields" => template["fields"]!.AsObject(), _ => template["blocks"]![0]!.AsObject() };
                foreach (var (key, value) in JsonNode.Parse($"{{ {keys} }}")!.AsObject())
                {
                    into.Remove(key);
                    if (value is not null)
                        into[key] = value.DeepClone();
                }
            }
            yield return (said[0], template.ToJsonString(), page, expected.TrimEnd('\n'));
        }
    }
}
