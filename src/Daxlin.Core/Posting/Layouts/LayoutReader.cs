using System.Buffers;
using System.Collections.Immutable;
using Daxlin.Core.Json;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Ubl;

namespace Daxlin.Core.Posting.Layouts;

/// <summary>Reads a layout document and says, by key and line, what is wrong with it. Its keys are told in docs/POSTING.md.</summary>
public sealed class LayoutReader
{
    /// <summary>The longest document that is read, in characters.</summary>
    public const int Longest = 200_000;

    private const int MostTables = 6;
    private const int MostColumns = 200;
    private const int WidestColumn = 4000;

    private static readonly SearchValues<char> NotInNames = SearchValues.Create("[]:*?/\\\"<>|");

    private readonly FaultList faults = new();
    private readonly ExpressionPlaces expressions;

    private LayoutReader(TranslationLists lists) => expressions = new ExpressionPlaces(faults, lists);

    /// <exception cref="JsonFaultException">The document has faults.</exception>
    public static PostingLayout Read(string json, TranslationLists lists)
    {
        if (json.Length > Longest)
            throw new JsonFaultException([new JsonFault("the document", 0, $"A layout has at most {Longest} characters.")]);
        var reader = new LayoutReader(lists);
        var layout = reader.ReadLayout(JsonPlaceReader.Read(json));
        reader.faults.ThrowIfAny();
        return layout;
    }

    private PostingLayout ReadLayout(JsonPlace place)
    {
        if (!faults.IsObjectOf(place, "name", "names", "invoices", "creditNotes", "tables", "file"))
            return Nothing;
        var name = faults.RequiredText(place, "name");
        if (name.Length > 0 && DocumentName.FaultOf(name) is { } faulty)
            faults.Add(place.Find("name")!, faulty);
        expressions.ReadOwnNames(place.Find("names"), LayoutNames.Of(LayoutRecords.Journal));
        var file = LayoutFileReader.Read(place.Find("file"), name, faults);
        var tables = ReadTables(place, file);
        if (tables.Length > 0 && tables.All(table => table.Columns.All(column => column.Proves == Proved.Nothing)))
        {
            faults.Add(
                place.Find("tables")!, "No column says which control total its figures come to, so nobody would see an amount that is lost or doubled. “proves”: \"total\", \"lines\", \"tax\" or \"journal\" says it.");
        }
        // A column with a fault of its own is none yet, and not missing.
        if (file.Format == FileFormat.Ubl && !faults.Found.Any(fault => !fault.IsWarning))
            UblLayout.Check(place, tables, faults);
        return new PostingLayout(
            name, ReadCondition(place.Find("invoices"), LayoutRecords.Invoices),
            faults.OneOf(place.Find("creditNotes"), CreditSigns.Negative, ("negative", CreditSigns.Negative), ("positive", CreditSigns.Positive), ("as-printed", CreditSigns.AsPrinted)),
            tables, file);
    }

    private static PostingLayout Nothing { get; } = new("", null, CreditSigns.Negative, [], LayoutFileReader.Usual);

    private ImmutableArray<LayoutTable> ReadTables(JsonPlace parent, FileRule file)
    {
        if (parent.Find("tables") is not { } place)
        {
            faults.Add(parent, "The key “tables” is missing: which records are written, and which columns they have.");
            return [];
        }
        if (!place.IsArray || place.Items.Length is 0 or > MostTables)
        {
            faults.Add(place, $"One to {MostTables} tables in brackets are wanted here.");
            return [];
        }
        var tables = ImmutableArray.CreateBuilder<LayoutTable>();
        foreach (var item in place.Items)
        {
            if (!faults.IsObjectOf(item, "name", "records", "where", "columns"))
                continue;
            var records = faults.OneOf(
                item.Find("records"), LayoutRecords.Lines, ("invoices", LayoutRecords.Invoices), ("lines", LayoutRecords.Lines), ("taxes", LayoutRecords.Taxes), ("journal", LayoutRecords.Journal));
            if (item.Find("records") is null)
                faults.Add(item, "The key “records” is missing: invoices, lines, taxes or journal.");
            var name = item.Find("name") is null ? records.Word() : faults.RequiredText(item, "name");
            if (name.Length > 31 || name.AsSpan().ContainsAny(NotInNames))
                faults.Add(item.Find("name") ?? item, "A table's name has at most 31 letters and none of [ ] : * ? / \\ \" < > |.");
            if (tables.Any(table => table.Name.Equals(name, StringComparison.OrdinalIgnoreCase)))
                faults.Add(item, $"Two tables are called “{name}”; “name” tells them apart.");
            tables.Add(new LayoutTable(name, records, ReadCondition(item.Find("where"), records), ReadColumns(item, records, file)));
        }
        return tables.DrainToImmutable();
    }

    private ImmutableArray<LayoutColumn> ReadColumns(JsonPlace parent, LayoutRecords records, FileRule file)
    {
        if (parent.Find("columns") is not { } place)
        {
            faults.Add(parent, "The key “columns” is missing.");
            return [];
        }
        if (!place.IsArray || place.Items.Length is 0 or > MostColumns)
        {
            faults.Add(place, $"One to {MostColumns} columns in brackets are wanted here.");
            return [];
        }
        var columns = ImmutableArray.CreateBuilder<LayoutColumn>();
        foreach (var item in place.Items)
        {
            // A name alone is a column of that heading.
            var column = item.IsString ? Column(item, item.Text, item, null, records, file)
                : faults.IsObjectOf(item, "heading", "value", "proves", "decimals", "width", "cut", "fill")
                    ? Column(item, faults.RequiredText(item, "heading"), item.Find("value"), item, records, file) : null;
            if (column is null)
                continue;
            if (columns.Any(one => one.Heading == column.Heading))
                faults.Add(item, $"Two columns have the heading “{column.Heading}”.");
            columns.Add(column);
        }
        return columns.DrainToImmutable();
    }

    private LayoutColumn? Column(JsonPlace place, string heading, JsonPlace? value, JsonPlace? keys, LayoutRecords records, FileRule file)
    {
        if (value is null)
            faults.Add(place, "The key “value” is missing: a name, a text in quotes, or an expression.");
        var proves = faults.OneOf(keys?.Find("proves"), Proved.Nothing, ("total", Proved.Total), ("lines", Proved.Lines), ("tax", Proved.Tax), ("journal", Proved.Journal));
        if (proves != Proved.Nothing && proves == Proved.Journal != (records == LayoutRecords.Journal))
            faults.Add(keys!.Find("proves")!, "“journal” is what the debits and the credits of a table of the journal come to, and nothing else of it.");
        var digits = keys?.Find("decimals");
        var isOfCurrency = digits is { IsString: true, Text: "currency" };
        int? decimals = digits is null || isOfCurrency ? null : faults.Count(digits, 2, 10);
        var width = faults.Count(keys?.Find("width"), 0, WidestColumn);
        if (width == 0 && file.Format == FileFormat.FixedWidth)
            faults.Add(place, "A file of fixed width needs the “width” of each column, in letters.");
        var isCut = faults.Flag(keys?.Find("cut"), false);
        if (isCut && width == 0)
            faults.Add(keys!.Find("cut")!, "What is cut needs a “width”.");
        var fill = faults.Text(keys?.Find("fill"), " ");
        if (fill.Length != 1)
            faults.Add(keys!.Find("fill")!, "One letter is wanted here, which fills the column up.");
        if (value is null || ReadExpression(value, records) is not { } expression)
            return null;
        if (proves != Proved.Nothing && expression.Type != ExpressionType.Number)
            faults.Add(keys!.Find("proves")!, $"Only numbers come to a control total; this column is {expression.Type.Spoken()}.");
        if (digits is not null && expression.Type != ExpressionType.Number)
            faults.Add(keys!.Find("decimals")!, $"Only numbers have decimals; this column is {expression.Type.Spoken()}.");
        return new LayoutColumn(heading, value.Text, expression, proves, decimals, width, isCut, fill.Length == 1 ? fill[0] : ' ') { HasDigitsOfCurrency = isOfCurrency };
    }

    private Expression? ReadCondition(JsonPlace? place, LayoutRecords records) => expressions.ReadCondition(place, LayoutNames.Of(records));

    private Expression? ReadExpression(JsonPlace place, LayoutRecords records) => expressions.Read(place, LayoutNames.Of(records));
}
