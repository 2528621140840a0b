using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Service.Invoices;

/// <summary>The way back from a stored record to what was captured, so that it can be corrected and checked anew without its pages.</summary>
internal static class CapturedRecords
{
    /// <param name="record">Without any correction.</param>
    /// <param name="template">The version that captured it.</param>
    public static CapturedInvoice Of(InvoiceRecord record, Template template) => new(
        template,
        record.Kind == "creditNote",
        [.. InOrder(record.Fields, template.Fields.Select(field => field.Name)).Select(Of)],
        [.. record.Lines.Select(line => Of(line, template))],
        [.. record.Taxes.Select(line => Of(line, template))],
        [.. record.Others.Select(line => Of(line, template))],
        [.. record.LeftOut.Select(line => new LeftOutLine(line.Block, new PlaceOnPage(line.Page, Of(line.Box)), line.Text, line.Why))],
        [.. record.Sums.Select(sum => new CapturedSum(sum.Block, sum.Text, new PlaceOnPage(sum.Page, Of(sum.Box)), Number(sum.Stated), Number(sum.Counted)))],
        [.. record.Findings.Where(finding => finding.Origin == InvoiceRecords.FromCapture).Select(Of)])
    {
        Electronic = [.. record.Electronic.Select(file => file.ToFile())],
    };

    public static Finding Of(FindingRecord finding) =>
        new(finding.Code, Enum.Parse<Severity>(finding.Severity, ignoreCase: true), finding.Message, finding.About) { Readings = [.. finding.Readings ?? []] };

    private static CapturedLine Of(LineRecord line, Template template) => new(
        line.Block, line.Number,
        [.. InOrder(line.Cells, template.Blocks.FirstOrDefault(block => block.Name == line.Block)?.Columns.Select(column => column.Name) ?? []).Select(Of)])
    {
        Under = [.. line.Under.Select(list => new RowsUnder(
            list.Name, Enum.Parse<FlatForm>(list.Flat, ignoreCase: true),
            [.. list.Rows.Select((cells, index) => new CapturedLine(list.Name, index + 1, [.. cells.Select(Of)]))]))],
    };

    /// <summary>As the template names them; those that it does not name, such as a unit parted from its number, come last.</summary>
    private static IEnumerable<KeyValuePair<string, ValueRecord>> InOrder(ImmutableSortedDictionary<string, ValueRecord> values, IEnumerable<string> names)
    {
        var order = names.Select((name, at) => (name, at)).DistinctBy(one => one.name).ToDictionary(one => one.name, one => one.at);
        return values.OrderBy(value => order.GetValueOrDefault(value.Key, int.MaxValue));
    }

    private static CapturedValue Of(KeyValuePair<string, ValueRecord> named)
    {
        var (name, value) = named;
        var kind = Enum.Parse<ValueKind>(value.Type, ignoreCase: true);
        ImmutableArray<PlaceOnPage> places = value.Box is { } box ? [new PlaceOnPage(value.Page, Of(box)), .. value.Also.Select(Of)] : [];
        return new CapturedValue(
            name, kind, value.Value, kind.IsFigure() ? Number(value.Value) : null,
            new Trace(places, value.Whereabouts, value.Raw, value.Confidence) { Steps = [.. value.Tidied.Select(step => new TidiedText(step.Step, step.Text))] });
    }

    public static PlaceOnPage Of(PlaceRecord place) => new(place.Page, Of(place.Box));

    public static Box Of(BoxRecord box) => new(box.Left, box.Top, box.Right, box.Bottom);

    private static decimal Number(string text) => decimal.Parse(text, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture);
}
