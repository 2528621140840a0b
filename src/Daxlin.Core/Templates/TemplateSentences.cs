using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Values;

namespace Daxlin.Core.Templates;

/// <summary>Reads a template aloud: each rule as a sentence for whoever does not read JSON.</summary>
public static class TemplateSentences
{
    /// <summary>In the order of the document: how the vendor writes, what recognises it, fields, blocks.</summary>
    public static ImmutableArray<TemplateSentence> Of(Template template) =>
    [
        new("reads", HabitsOf(template.Reads)),
        new("recognise", RecognitionOf(template.Recognise)),
        .. template.Fields.Select(field => new TemplateSentence($"fields.{field.Name}", FieldOf(field))),
        .. template.Blocks.SelectMany(BlockOf),
        .. OfRounding(template.Checks.TaxRounding),
        .. template.Checks.Ties.Select(tie => new TemplateSentence("checks.ties", $"It must hold that {tie.Text}{(tie.OfRowsIn is { } list ? $", on each row of {list}" : "")}.")),
    ];

    private static IEnumerable<TemplateSentence> OfRounding(TaxRoundings way)
    {
        if (way != TaxRoundings.Any)
            yield return new TemplateSentence("checks.taxRounding", $"Tax is rounded {(way == TaxRoundings.ByLine ? "on each line" : way == TaxRoundings.ByRate ? "for each rate" : "once for all")}.");
    }

    private static string HabitsOf(Habits reads)
    {
        var dates = reads.Dates switch { DateOrder.DayFirst => "the day first", DateOrder.MonthFirst => "the month first", _ => "the year first" };
        var grouping = reads.GroupingMarks.Length == 0 ? "nothing" : string.Join(" or ", reads.GroupingMarks.Select(mark => mark == ' ' ? "a blank" : $"“{mark}”"));
        return $"Amounts are in {reads.Currency.Code}, with “{reads.DecimalMark}” before the decimals and {grouping} between thousands; dates have {dates}."
            + (reads.TaxIncluded ? " Amounts of rows hold the tax already." : "");
    }

    private static string RecognitionOf(RecognitionRule rule) =>
        $"An invoice is this vendor's if {And(rule.Must)} {(rule.Must.Length == 1 ? "stands" : "all stand")} on it"
        + (rule.MustNot.IsEmpty ? "" : $", and {Or(rule.MustNot)} does not")
        + (rule.May.IsEmpty ? "." : $"; {Or(rule.May)} speaks for it among several templates.")
        + (rule.CreditNote.IsEmpty ? "" : $" It is a credit note if {Or(rule.CreditNote)} stands on it.");

    private static string FieldOf(FieldRule field)
    {
        var name = TradeNames.Spoken(field.Name);
        if (field.Where is [Always always])
            return $"The {name} is always “{always.Value}”.";
        var ways = field.Where.Select(where => where is OfDocument ? where.Says : $"the {KindOf(field.Kind)} {SaidOf(where)}");
        return $"The {name} is {string.Join("; if there is none, ", ways)}."
            + (field.Shape is { } shape ? $" It has the form {shape}." : "")
            + (field.Tidy.IsEmpty ? "" : $" Its text is tidied: {string.Join(", then ", field.Tidy.Select(step => step.Name))}.")
            + (field.Required ? " Without it the invoice is held." : "");
    }

    private static string SaidOf(Whereabouts where)
    {
        var occurrence = where is OnPage { Occurrence: not 0 and var number }
            ? number switch { 1 => ", the first place", -1 => ", the last place", _ => string.Create(CultureInfo.InvariantCulture, $", place {number}") } : "";
        var pages = where is OnPage { OnPages: var range } && range != PageRange.All ? " on the pages said" : "";
        return where is Always always ? $"“{always.Value}”, whatever is printed" : where.Says + occurrence + pages;
    }

    private static string KindOf(ValueKind kind) => kind switch
    {
        ValueKind.Money or ValueKind.Price => "money",
        ValueKind.Iban => "account number",
        ValueKind.Percent => "rate",
        ValueKind.Whole or ValueKind.Number => "number",
        ValueKind.Date => "date",
        ValueKind.Currency => "currency",
        _ => "text",
    };

    private static IEnumerable<TemplateSentence> BlockOf(BlockRule block)
    {
        var place = $"blocks.{block.Name}";
        var opens = block.Opens is { } cue ? $"begin below {cue}" : block.Columns.Any(column => column.Heading is not null) ? "begin below their headings" : "may stand anywhere";
        var closes = block.Closes.IsEmpty ? "" : $" and end at {Or(block.Closes)}";
        yield return new(place, (block.Row is IsFields ? "" : $"The rows “{block.Name}” {opens}{closes}. ") + RowOf(block.Row) + (block.Required ? " An invoice without any is held." : ""));
        foreach (var column in block.Columns)
            yield return new($"{place}.columns.{column.Name}", ColumnOf(column));
        foreach (var edges in block.EdgesOn)
        {
            var where = edges.Columns.Select(column => string.Create(CultureInfo.InvariantCulture, $"the {TradeNames.Spoken(column.Key)} from {column.Value.Left:0.#} to {column.Value.Right:0.#} points"));
            yield return new($"{place}.edgesOn", $"On {PagesOf(edges.Pages)} columns stand elsewhere: {string.Join(", ", where)}.");
        }
        foreach (var carry in block.Carry)
        {
            yield return new($"{place}.carry.{carry.Column}", $"A line {(carry.BeginsIn is { } begins ? $"that begins in the column {TradeNames.Spoken(begins)}" : $"of the form {carry.Pattern}")} "
                + $"{(carry.InPageHead ? "above the rows" : "between the rows")} is the {TradeNames.Spoken(carry.Column)} of the rows below it.");
        }
        foreach (var pattern in block.LeaveOut)
            yield return new($"{place}.leaveOut", $"Lines of the form {pattern} are none of the rows.");
        foreach (var under in block.RowsUnder)
            yield return new($"{place}.rowsUnder.{under.Name}", $"Under each row there may be a list of {TradeNames.Spoken(under.Name)}.");
    }

    private static string PagesOf(PageRange pages) => pages switch
    {
        _ when pages == PageRange.All => "all pages",
        (var from, var to) when from == to => from < 0 ? "the last page" : $"page {from}",
        (var from, < 0) => $"page {from} and after",
        var (from, to) => $"pages {from} to {to}",
    };

    private static string RowOf(RowRule row) => row switch
    {
        BeginsFilled { Form: null } filled => $"A row begins where its {TradeNames.Spoken(filled.Column)} stands.",
        BeginsFilled filled => $"A row begins where its {TradeNames.Spoken(filled.Column)} has the form {filled.Form}.",
        BeginsMatching matching => $"A row begins on a line of the form {matching.Line}.",
        BeginsAfterGap gap => string.Create(CultureInfo.InvariantCulture, $"Rows stand between gaps of {gap.Gap:0.#} points."),
        BeginsBelowRuling => "Rows stand between rulings.",
        IsMatch match => $"Each line of the form {match.Line} is a row.",
        _ => "The invoice has one row, made of its header's values.",
    };

    private static string ColumnOf(ColumnRule column)
    {
        var name = TradeNames.Spoken(column.Name);
        var says = column.Source switch
        {
            UnderHeading { Pinned: { } pin } under => string.Create(CultureInfo.InvariantCulture, $"The {name} stands under {under.Heading}, from {pin.Left:0.#} to {pin.Right:0.#} points"),
            UnderHeading under => $"The {name} stands under {under.Heading}",
            BetweenEdges edges => string.Create(CultureInfo.InvariantCulture, $"The {name} stands from {edges.Left:0.#} to {edges.Right:0.#} points"),
            BetweenNeighbours => $"The {name} stands between its neighbours, without a heading",
            PartOfColumn part => $"The {name} is a part of the {TradeNames.Spoken(part.Column)}",
            ConstantColumn constant => $"The {name} is always “{constant.Value}”",
            LookedUp looked => $"The {name} is looked up in the rows “{looked.Block}” by the {TradeNames.Spoken(looked.With)}",
            _ => $"The {name} is the part of that name",
        };
        var folds = column.Fold switch
        {
            Fold.Down => "; its text wraps below the row",
            Fold.Up => "; its text wraps above the row",
            Fold.Around => "; its text wraps above and below the row",
            Fold.AllDown => "; all text below belongs to it",
            _ => "",
        };
        return says + folds + (column.Tidy.IsEmpty ? "" : $"; its text is tidied: {string.Join(", then ", column.Tidy.Select(step => step.Name))}")
            + (column.Kept ? "." : "; it is read, and no part of the row.");
    }

    private static string And(ImmutableArray<Cue> cues) => string.Join(" and ", cues);

    private static string Or(ImmutableArray<Cue> cues) => string.Join(" or ", cues);
}
