using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Testing;

namespace Daxlin.Core.Tests;

/// <summary>Runs every example of the template reference: what it says is captured is what is captured.</summary>
public partial class TemplateExamplesTests
{
    private static readonly DocumentFacts Facts = new("BC-00471 March.pdf", "Brinewood 2026-03", new DateOnly(2026, 3, 14));

    public static TheoryData<string, string> Titles()
    {
        var titles = new TheoryData<string, string>();
        foreach (var file in Directory.GetFiles(Repository.Path("docs/templates"), "*.md").Order(StringComparer.Ordinal))
        {
            foreach (var example in Examples(file))
                titles.Add(Path.GetFileName(file), example.Title);
        }
        return titles;
    }

    [Theory]
    [MemberData(nameof(Titles))]
    public void An_example_of_the_reference_captures_what_it_says(string file, string title)
    {
        var example = Examples(Repository.Path("docs/templates/" + file)).Single(example => example.Title == title);
        var template = TemplateReader.Read(Whole(example));
        var found = InvoiceSplitter.Split(Typewriter.Set(example.Page), [template]);
        var told = found.Select(invoice => Told(InvoiceCapture.Capture(invoice.Pages, template, Facts), IsChecked(file, title))).ToList();
        var lines = told.Count == 1 ? told[0] : told.SelectMany((one, index) => one.Prepend($"invoice {index + 1}"));
        Assert.Equal(example.Captured.TrimEnd(), string.Join('\n', lines));
    }

    /// <summary>Examples that show what is checked, not only what is captured.</summary>
    private static bool IsChecked(string file, string title) => file == "checks.md" || title == "Deliveries that must be there, and add up";

    [Fact]
    public void The_schema_names_the_settled_fields_and_columns()
    {
        using var stream = TemplateSchema.Open();
        var schema = JsonNode.Parse(stream)!;
        Assert.Equal(TradeNames.Fields, NamesAt(schema["properties"]!["fields"]!));
        Assert.Equal(TradeNames.Columns.Concat(TradeNames.TaxColumns).Distinct().Order(), NamesAt(schema["$defs"]!["block"]!["properties"]!["columns"]!).Order());

        static IEnumerable<string> NamesAt(JsonNode names) => names["properties"]!.AsObject().Select(pair => pair.Key);
    }

    [Fact]
    public void The_reference_has_an_example_for_every_key_of_the_schema()
    {
        using var stream = TemplateSchema.Open();
        var schema = JsonNode.Parse(stream)!;
        var shown = Directory.GetFiles(Repository.Path("docs/templates"), "*.md").SelectMany(file => Examples(file)).Select(example => example.Template)
            .Append(File.ReadAllText(Repository.Path("docs/TEMPLATES.md"))).ToList();
        var missing = KeysOf(schema).Distinct()
            .Where(key => key != "$schema" && !shown.Any(text => text.Contains($"\"{key}\":", StringComparison.Ordinal)));
        Assert.Equal("", string.Join(", ", missing));
    }

    /// <summary>All keys that a template may have, at any depth.</summary>
    private static IEnumerable<string> KeysOf(JsonNode? node) => node switch
    {
        JsonObject branch => (branch["properties"] is JsonObject properties ? properties.Select(member => member.Key) : [])
            .Concat(branch.SelectMany(member => KeysOf(member.Value))),
        JsonArray items => items.SelectMany(KeysOf),
        _ => [],
    };

    /// <summary>What the example says, and the keys that it leaves out because they do not matter to it.</summary>
    private static string Whole(Example example)
    {
        var template = JsonNode.Parse("{" + example.Template + "}")!.AsObject();
        template.TryAdd("name", "example");
        template.TryAdd("vendor", "Brinewood Chandlery");
        template.TryAdd("reads", JsonNode.Parse("""{ "currency": "EUR", "dates": "day-first", "decimal": ".", "grouping": "," }"""));
        // Any word that stands there tells the only invoice of the example.
        var word = example.Page.Split((char[])[' ', '\n', '─', '│'], StringSplitOptions.RemoveEmptyEntries).First(word => word.Any(char.IsLetter));
        template.TryAdd("recognise", new JsonObject { ["must"] = new JsonArray(word) });
        template.TryAdd("fields", new JsonObject());
        return template.ToJsonString();
    }

    private static IEnumerable<string> Told(CapturedInvoice invoice, bool isChecked)
    {
        if (invoice.IsCreditNote)
            yield return "a credit note";
        foreach (var field in invoice.Fields)
            yield return $"{field.Name}: {field.Value.Replace("\n", " / ", StringComparison.Ordinal)}";
        foreach (var (list, rows) in new[] { ("lines", invoice.Lines), ("taxes", invoice.Taxes) })
        {
            foreach (var line in rows.SelectMany(row => Told(list, row)))
                yield return line;
        }
        foreach (var line in invoice.Others.SelectMany(row => Told(row.Block, row)))
            yield return line;
        foreach (var line in invoice.LeftOut)
            yield return $"left out: {line.Text} ({line.Why})";
        var weighed = InvoiceChecks.Check(invoice);
        foreach (var tie in weighed.Ties.Where(tie => isChecked && tie.Holds))
            yield return $"tied: {tie.Equation}";
        if (isChecked && !weighed.Unproved.IsEmpty)
            yield return $"not checked by any sum: {string.Join(", ", weighed.Unproved)}";
        foreach (var finding in isChecked ? weighed.Findings : invoice.Findings)
            yield return $"held: {finding.Message}";
    }

    private static IEnumerable<string> Told(string list, CapturedLine row)
    {
        yield return string.Create(CultureInfo.InvariantCulture, $"{list}[{row.Number}]  {CellsOf(row)}");
        foreach (var under in row.Under)
        {
            foreach (var inner in under.Rows)
                yield return string.Create(CultureInfo.InvariantCulture, $"    {under.Name}[{inner.Number}]  {CellsOf(inner)}");
        }
    }

    private static string CellsOf(CapturedLine row) => string.Join(" | ", row.Cells.Select(cell => $"{cell.Name}: {cell.Value}"));

    private sealed record Example(string Title, string Template, string Page, string Captured);

    /// <summary>An example is a heading, then the template's part, the page, and what is captured, each in a fence.</summary>
    private static ImmutableArray<Example> Examples(string file)
    {
        var examples = ImmutableArray.CreateBuilder<Example>();
        var title = "";
        foreach (Match match in Parts().Matches(File.ReadAllText(file).ReplaceLineEndings("\n")))
        {
            if (match.Groups["title"].Success)
                title = match.Groups["title"].Value;
            else
                examples.Add(new Example(title, match.Groups["template"].Value, match.Groups["page"].Value, match.Groups["captured"].Value));
        }
        return examples.ToImmutable();
    }

    [GeneratedRegex(
        @"^#+ (?<title>.+)$|^```json\n(?<template>(?:.*\n)+?)```\s+```text\n(?<page>(?:.*\n)+?)```\s+```text\n(?<captured>(?:.*\n)*?)\n?```$",
        RegexOptions.Multiline)]
    private static partial Regex Parts();
}
