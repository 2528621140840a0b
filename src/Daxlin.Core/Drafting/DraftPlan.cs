using System.Collections.Immutable;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using Daxlin.Core.Json;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>A template in the making: its parts, each of which can be exchanged for another and tried.</summary>
/// <param name="Must">Cues that recognise the vendor.</param>
/// <param name="CreditNote">What makes it a credit note.</param>
/// <param name="SkipFirst">Pages before the invoice: a cover letter.</param>
/// <param name="Fields">Header fields by name; a null rule is none.</param>
/// <param name="Items">The block of item rows, or null.</param>
/// <param name="Taxes">The tax summary's block, or null.</param>
internal sealed record DraftPlan(
    string Vendor, Habits Reads, ImmutableArray<JsonNode> Must, ImmutableArray<string> CreditNote, int SkipFirst,
    ImmutableDictionary<string, JsonObject?> Fields, ItemsPlan? Items, JsonObject? Taxes)
{
    private static readonly JsonSerializerOptions Json = new() { WriteIndented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <summary>Shared by all plans that come of this one: most of their patterns are the same.</summary>
    private readonly PatternCache patterns = new();

    /// <summary>A plan that says nothing but how the vendor writes, for probes.</summary>
    public static DraftPlan Of(Habits reads) =>
        new("Draft", reads, ["Draft"], [], 0, ImmutableDictionary<string, JsonObject?>.Empty, null, null);

    public DraftPlan With(string field, JsonObject? rule) => this with { Fields = Fields.SetItem(field, rule) };

    /// <summary>The template's name.</summary>
    public string Name { get; init; } = "draft";

    /// <summary>A second block of item rows, of another shape; null for none.</summary>
    public ItemsPlan? Second { get; init; }

    /// <summary>How many item rows stand on the samples; a plan that captures fewer has run some together.</summary>
    public int Rows { get; init; }

    /// <summary>
    /// Stands where item rows were looked for and not found: headings that the invoices do not have, so that none of them is
    /// clear before a person has said where its rows are.
    /// </summary>
    public ItemsPlan? Stand { get; init; }

    /// <summary>The template document.</summary>
    public string Document()
    {
        var root = new JsonObject
        {
            ["name"] = Name,
            ["vendor"] = Vendor,
            ["reads"] = new JsonObject
            {
                ["currency"] = Reads.Currency.Code,
                ["dates"] = HabitsDraft.Spoken(Reads.Dates),
                ["decimal"] = Reads.DecimalMark.ToString(),
                ["grouping"] = Reads.GroupingMarks,
            },
        };
        if (Reads.TaxIncluded)
            root["reads"]!["tax"] = "included";
        var recognise = new JsonObject { ["must"] = new JsonArray([.. Must.Select(cue => cue.DeepClone())]) };
        if (!CreditNote.IsEmpty)
            recognise["creditNote"] = new JsonArray([new JsonArray([.. CreditNote.Select(word => (JsonNode)word)])]);
        root["recognise"] = recognise;
        if (SkipFirst > 0)
            root["pages"] = new JsonObject { ["skipFirst"] = SkipFirst };
        var fields = new JsonObject();
        foreach (var name in TradeNames.Fields.Concat(Fields.Keys.Except(TradeNames.Fields).Order(StringComparer.Ordinal)))
        {
            if (Fields.GetValueOrDefault(name) is { } rule)
                fields[name] = rule.DeepClone();
        }
        root["fields"] = fields;
        var blocks = new JsonArray();
        if ((Items ?? Stand) is { } items)
            blocks.Add(items.Block(Taxes));
        if (Second is not null)
        {
            var second = Second.Block(Taxes);
            (second["name"], second["required"]) = ("services", false);
            blocks.Add(second);
        }
        if (Taxes is not null)
            blocks.Add(Taxes.DeepClone());
        if (blocks.Count > 0)
            root["blocks"] = blocks;
        return root.ToJsonString(Json);
    }

    /// <summary>The template, or null if the parts do not go together.</summary>
    public Template? Template() => TemplateReader.Check(Document(), patterns).Template;

    /// <summary>brinewood-chandlery for “Brinewood Chandlery”; brinewood-chandlery-2 where that is taken, since a draft is no next version of another template.</summary>
    public static string NameOf(string vendor, IReadOnlyCollection<string> taken)
    {
        var words = new string([.. vendor.ToLowerInvariant().Select(c => char.IsAsciiLetterOrDigit(c) ? c : ' ')]).Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var name = words.Length == 0 ? "draft" : string.Join('-', words);
        return !taken.Contains(name) ? name : Enumerable.Range(2, taken.Count).Select(number => $"{name}-{number}").First(other => !taken.Contains(other));
    }
}
