using System.Collections.Immutable;
using Daxlin.Core.Json;
using Daxlin.Core.Values;

namespace Daxlin.Core.Templates.Json;

/// <summary>Reads a template document strictly: what it does not know is a fault with its key and place.</summary>
public static class TemplateReader
{
    /// <summary>The most characters a template document may have.</summary>
    public const int LongestDocument = 200_000;

    /// <exception cref="JsonFaultException">The document has faults; all of them are in the exception.</exception>
    public static Template Read(string json) => Read(json, new FaultList());

    /// <summary>Everything that is wrong with a document, and what is likely not meant; the template if it can be used all the same.</summary>
    public static (Template? Template, ImmutableArray<JsonFault> Faults) Check(string json) => Check(json, patterns: null);

    /// <summary>The same, with patterns that were built already.</summary>
    internal static (Template? Template, ImmutableArray<JsonFault> Faults) Check(string json, PatternCache? patterns)
    {
        var faults = new FaultList(patterns);
        try
        {
            var template = Read(json, faults);
            return (template, faults.Found);
        }
        catch (JsonFaultException error)
        {
            return (null, error.Faults);
        }
    }

    /// <summary>
    /// The cues that must stand on a template's invoices, without reading the rest of it: reading takes milliseconds and a
    /// megabyte for its patterns, and most of thousands of templates are never asked. Empty for a document with faults.
    /// </summary>
    public static ImmutableArray<Cue> MustOf(string json)
    {
        try
        {
            return ReadRecognition(JsonPlaceReader.Read(json), new FaultList()).Must;
        }
        catch (JsonFaultException)
        {
            return [];
        }
    }

    /// <summary>The key at which a text stands in a template document, <c>fields.note.where.matching</c>; null if it stands nowhere.</summary>
    public static string? KeyOf(string json, string text)
    {
        try
        {
            return Find(JsonPlaceReader.Read(json));
        }
        catch (JsonFaultException)
        {
            return null;
        }

        string? Find(JsonPlace place) => place.Text == text ? place.Path
            : place.Members.Select(member => member.Value).Concat(place.Items).Select(Find).FirstOrDefault(found => found is not null);
    }

    private static Template Read(string json, FaultList faults)
    {
        if (json.Length > LongestDocument)
            throw new JsonFaultException([new("the document", 1, $"A template has at most {LongestDocument} characters.")]);
        var document = JsonPlaceReader.Read(json);
        if (!faults.IsObjectOf(document, "$schema", "name", "vendor", "reads", "recognise", "pages", "fields", "blocks", "checks"))
            faults.ThrowIfAny();

        var name = faults.RequiredText(document, "name");
        if (name.Length > 0 && DocumentName.FaultOf(name) is { } fault)
            faults.Add(document.Find("name")!, fault);
        var vendor = faults.RequiredText(document, "vendor");
        var habits = ReadHabits(document, faults);
        var recognise = ReadRecognition(document, faults);
        var pages = PageReader.Read(document.Find("pages"), faults);
        var fields = FieldReader.ReadAll(document, faults);
        var blocks = BlockReader.ReadAll(document.Find("blocks"), fields, faults);
        var checks = ReadChecks(document.Find("checks"), fields, blocks, faults);
        foreach (var needed in new[] { TradeNames.InvoiceNumber, TradeNames.InvoiceDate, TradeNames.Total })
        {
            if (!fields.Any(rule => rule.Name == needed))
                faults.Warn(document.Find("fields") ?? document, $"There is no field “{needed}”; no invoice is clear without its {TradeNames.Spoken(needed)}.");
        }
        faults.ThrowIfAny();
        return new Template(name, vendor, habits, recognise, pages, fields, blocks, checks);
    }

    private static Habits ReadHabits(JsonPlace document, FaultList faults)
    {
        var fallback = new Habits(Currency.Find("EUR")!, DateOrder.DayFirst, '.', ",");
        if (document.Find("reads") is not { } reads)
        {
            faults.Add(document, "The key “reads” is missing: it tells the currency, the order of dates and the marks in numbers.");
            return fallback;
        }
        if (!faults.IsObjectOf(reads, "currency", "dates", "decimal", "grouping", "tax"))
            return fallback;
        var code = faults.RequiredText(reads, "currency");
        var currency = Currency.Find(code);
        if (currency is null && code.Length > 0)
            faults.Add(reads.Find("currency")!, $"“{code}” is no currency code of ISO 4217.");
        var dates = faults.OneOf(
            reads.Find("dates"), DateOrder.DayFirst,
            ("day-first", DateOrder.DayFirst), ("month-first", DateOrder.MonthFirst), ("year-first", DateOrder.YearFirst));
        if (reads.Find("dates") is null)
            faults.Add(reads, "The key “dates” is missing: day-first, month-first or year-first.");
        var mark = faults.OneOf(reads.Find("decimal"), '.', (".", '.'), (",", ','));
        if (reads.Find("decimal") is null)
            faults.Add(reads, "The key “decimal” is missing: the mark before the decimals, \".\" or \",\".");
        var grouping = faults.Text(reads.Find("grouping"));
        var isMarkKnown = reads.Find("decimal") is { IsString: true, Text: "." or "," };
        if (grouping.Any(c => !".,' ".Contains(c, StringComparison.Ordinal)) || (isMarkKnown && grouping.Contains(mark, StringComparison.Ordinal)))
            faults.Add(reads.Find("grouping")!, "Grouping marks are a point, a comma, an apostrophe or a blank, and never the decimal mark.");
        return new Habits(
            currency ?? fallback.Currency, dates, mark, grouping,
            TaxIncluded: faults.OneOf(reads.Find("tax"), false, ("excluded", false), ("included", true)));
    }

    private static RecognitionRule ReadRecognition(JsonPlace document, FaultList faults)
    {
        if (document.Find("recognise") is not { } recognise)
        {
            faults.Add(document, "The key “recognise” is missing: the cues that tell this vendor's invoices from others.");
            return new RecognitionRule([], [], [], []);
        }
        faults.IsObjectOf(recognise, "must", "may", "mustNot", "creditNote");
        if (recognise.Find("must") is null)
            faults.Add(recognise, "The key “must” is missing: a template without it would take any invoice.");
        else if (recognise.Find("must") is { IsArray: true, Items.IsEmpty: true } none)
            faults.Add(none, "At least one cue is wanted here: a template without any would take any invoice.");
        return new RecognitionRule(Cues("must"), Cues("may"), Cues("mustNot"), Cues("creditNote"));

        // Each entry is a cue of its own; an entry in brackets is one cue in several spellings.
        ImmutableArray<Cue> Cues(string key) => recognise.Find(key) is not { } place ? []
            : place.IsArray ? [.. place.Items.Select(item => new Cue(faults.Texts(item)))]
            : [new Cue(faults.Texts(place))];
    }

    private static CheckRule ReadChecks(JsonPlace? place, ImmutableArray<FieldRule> fields, ImmutableArray<BlockRule> blocks, FaultList faults)
    {
        if (place is null || !faults.IsObjectOf(place, "rounding", "lineTolerance", "taxTolerance", "sumTolerance", "taxRounding", "ties"))
            return new CheckRule(Rounding.HalfUp, 0, 0, 0);
        return new CheckRule(
            faults.OneOf(
                place.Find("rounding"), Rounding.HalfUp,
                ("half-up", Rounding.HalfUp), ("half-even", Rounding.HalfEven), ("down", Rounding.Down)),
            faults.Amount(place.Find("lineTolerance"), 0),
            faults.Amount(place.Find("taxTolerance"), 0),
            faults.Amount(place.Find("sumTolerance"), 0))
        {
            TaxRounding = faults.OneOf(
                place.Find("taxRounding"), TaxRoundings.Any,
                ("by-line", TaxRoundings.ByLine), ("by-rate", TaxRoundings.ByRate), ("once", TaxRoundings.Once)),
            Ties = TieReader.ReadAll(place.Find("ties"), fields, blocks, faults),
        };
    }
}
