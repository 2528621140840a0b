using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;

namespace Daxlin.Core.Tests;

/// <summary>Changes to one template, each with all that reading makes of it, in files that read as examples.</summary>
public partial class TemplateSheetTests
{
    private static readonly string Sound = ValueSheet.BlocksOf("templates.txt").First();

    public static TheoryData<string> Changes => [.. ValueSheet.BlocksOf("templates.txt").Skip(1)];

    public static TheoryData<string> Steps => [.. ValueSheet.BlocksOf("tidy.txt")];

    /// <summary>Each change of Sheets/templates.txt has just the faults, the warnings and the rules read otherwise that stand below it.</summary>
    [Theory]
    [MemberData(nameof(Changes))]
    public void A_change_to_a_template_is_read_or_faulted_like_this(string block)
    {
        var lines = block.Split('\n');
        var template = JsonNode.Parse(Sound)!;
        foreach (var change in lines.Where(line => !line.StartsWith(' ')))
            template = Changed(template, change);
        Assert.Equal(lines.Where(line => line.StartsWith(' ')).Select(line => line.Trim()), FoundIn(template).Select(line => line.Trim()));
    }

    [Fact]
    public void The_template_that_is_changed_is_in_order_and_drawn_up_as_it_was_read()
    {
        Assert.Empty(FoundIn(JsonNode.Parse(Sound)!));
        Assert.Equal("fields.total.where.beside", TemplateReader.KeyOf(Sound, "Amount payable"));
        Assert.Equal("blocks[0].closes[1]", TemplateReader.KeyOf(Sound, "Sum of goods"));
        Assert.Null(TemplateReader.KeyOf(Sound, "Nobody prints this"));
        Assert.Null(TemplateReader.KeyOf("{", "Total"));
        Assert.Equal(["“Slipway”", "“Paints” or “Colours”"], TemplateReader.MustOf(Sound).Select(cue => cue.ToString()));
        Assert.Empty(TemplateReader.MustOf("{"));
        Assert.StartsWith("A template has at most ", Assert.Single(TemplateReader.Check(new string(' ', 1_000_001)).Faults).Message, StringComparison.Ordinal);
    }

    /// <summary>The steps of Sheets/tidy.txt make of each text what stands behind the arrow.</summary>
    [Theory]
    [MemberData(nameof(Steps))]
    public void Steps_make_this_of_these_texts(string block)
    {
        var lines = block.Split('\n');
        var template = Changed(JsonNode.Parse(Sound)!, $"fields.reference.tidy = {lines[0]}");
        var field = TemplateReader.Read(template.ToJsonString()).Fields.Single(field => field.Name == "reference");
        Assert.All(lines[1..], line =>
        {
            var (text, result) = line.Trim().Split(" → ") is [var before, var after] ? (before.Replace("⏎", "\n", StringComparison.Ordinal), after) : throw new FormatException(line);
            Assert.Equal(result == "nothing" ? "" : result, field.Tidy.Aggregate(text.Trim('|'), (now, step) => step.Apply(now)));
        });
    }

    /// <summary>Sets what stands at a path; <c>gone</c> takes it away.</summary>
    private static JsonNode Changed(JsonNode template, string change)
    {
        var (path, value) = change.Split(" = ", 2) is [var left, var right] ? (PathParts().Matches(left).Select(part => part.Value).ToList(), right) : throw new FormatException(change);
        if (path is ["document"])
            return JsonNode.Parse(value)!;
        var at = template;
        foreach (var part in path.SkipLast(1))
            at = int.TryParse(part, out var index) ? at[index]! : at[part]!;
        if (value == "gone")
            at.AsObject().Remove(path[^1]);
        else if (int.TryParse(path[^1], out var last))
            at[last] = JsonNode.Parse(Written(value));
        else
            at[path[^1]] = JsonNode.Parse(Written(value));
        return template;
    }

    /// <summary><c>101 × {}</c> is a list of a hundred and one, <c>101 named {}</c> an object of as many, <c>600 a</c> a long text.</summary>
    private static string Written(string value) => Many().Match(value) is not { Success: true } many ? value
        : (int.Parse(many.Groups[1].Value, System.Globalization.CultureInfo.InvariantCulture), many.Groups[2].Value, many.Groups[3].Value) switch
        {
            (var count, "×", var item) => $"[{string.Join(',', Enumerable.Repeat(item, count))}]",
            (var count, "named", var item) => $"{{{string.Join(',', Enumerable.Range(1, count).Select(number => $"\"n{number}\":{item}"))}}}",
            var (count, _, letter) => JsonSerializer.Serialize(string.Concat(Enumerable.Repeat(letter, count))),
        };

    /// <summary>The faults and warnings of a template; of one in order what is read otherwise than from the sound one.</summary>
    private static List<string> FoundIn(JsonNode document)
    {
        var (template, faults) = TemplateReader.Check(document.ToJsonString());
        var found = faults.Select(fault => $"{(fault.IsWarning ? "?" : "!")} {fault.Place}: {fault.Message}").ToList();
        if (template is not null)
        {
            var before = ReadIn(TemplateReader.Read(Sound)).ToHashSet();
            found.AddRange(ReadIn(template).Where(line => !before.Contains(line)));
        }
        return found;
    }

    /// <summary>What is read: the sentences, and what no sentence says.</summary>
    private static IEnumerable<string> ReadIn(Template template) =>
    [
        .. TemplateSentences.Of(template).Select(sentence => $"{sentence.Place}: {sentence.Says}"),
        .. template.Fields.Select(field => $"{field.Name}: {field.Kind}{(field.MayBeUntied ? ", untied" : "")}, {string.Join(" / ", field.Where.Select(DetailOf))}"),
        .. template.Blocks.Select(block => $"{block.Name}: in {block.List}, pages {RangeOf(block.Where.Pages)}, from {block.Where.Left} to {block.Where.Right}, beside {string.Join(' ', block.Where.Beside)}{(block.OnlyRows is { } only ? $", only {only}" : "")}"),
        .. from block in template.Blocks from column in block.Columns select $"{block.Name}.{column.Name}: {DetailOf(column)}",
        .. from block in template.Blocks from under in block.RowsUnder select $"{block.Name} under {under.Name}: {under.Line} each {under.Each}, adds up {string.Join(' ', under.AddUp)}, {under.Flat}{(under.Required ? ", required" : "")}, {string.Join(' ', under.Columns.Select(column => column.Name))}",
        $"pages: skip {template.Pages.SkipFirst} and {template.Pages.SkipLast}, only {RangeOf(template.Pages.Only)}, without {string.Join(" and ", template.Pages.LeaveOut)}, new by {string.Join(" and ", template.Pages.NewInvoice.Cues)} {template.Pages.NewInvoice.NewValueOf}",
        $"checks: {template.Checks.Rounding}, {template.Checks.LineTolerance} {template.Checks.TaxTolerance} {template.Checks.SumTolerance}",
    ];

    private static string RangeOf(PageRange range) => $"{range.From}…{range.To}";

    private static string DetailOf(Whereabouts where) => where switch
    {
        ByCue by => $"{by.Side}{(by.Cue.ExactCase ? " exact" : "")}{(by.Cue.WithinWords ? " part" : "")} place {by.Occurrence} pages {RangeOf(by.OnPages)} reach {by.Reach} lines {by.Lines} {by.Within}",
        Matching matching => $"place {matching.Occurrence} pages {RangeOf(matching.OnPages)}",
        At at => $"page {at.PageNumber} {at.Place} lines {at.Lines}",
        _ => where.Says,
    };

    private static string DetailOf(ColumnRule column) =>
        $"{column.Kind}, {column.Says}{(column.Shape is { } shape ? $", form {shape}" : "")}{(column.JoinsHyphens ? ", joins hyphens" : "")}{(column.DashIsZero ? ", dash is zero" : "")}"
        + $"{(column.Required ? ", required" : "")}{(column.Optional ? ", optional" : "")}{(column.MayBeUntied ? ", untied" : "")}{(column.IsPlaced ? "" : ", not placed")}"
        + (column.Source is LookedUp looked ? $", {looked.Take} where {looked.Match}" : "");

    [GeneratedRegex(@"[^.\[\]]+")]
    private static partial Regex PathParts();

    [GeneratedRegex(@"^(\d+) (×|named|of) (.+)$")]
    private static partial Regex Many();
}
