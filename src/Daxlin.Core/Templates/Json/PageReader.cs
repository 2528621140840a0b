using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Json;

namespace Daxlin.Core.Templates.Json;

/// <summary>Reads the <c>pages</c> of a template, and ranges of pages wherever they stand.</summary>
internal static class PageReader
{
    private const int MostSkipped = 50;
    private const int LastPage = 5000;

    public static PageRule Read(JsonPlace? place, FaultList faults)
    {
        if (place is null || !faults.IsObjectOf(place, "skipFirst", "skipLast", "only", "leaveOut", "newInvoice"))
            return PageRule.Usual;
        return new PageRule(
            faults.Count(place.Find("skipFirst"), 0, MostSkipped),
            faults.Count(place.Find("skipLast"), 0, MostSkipped),
            ReadRange(place.Find("only"), faults),
            place.Find("leaveOut") is { } leaveOut ? [.. faults.Texts(leaveOut).Select(text => new Cue([text]))] : [],
            ReadNewInvoice(place.Find("newInvoice"), faults));
    }

    /// <summary>A page, or two in brackets; <c>"last"</c> for the last, <c>"first"</c> for the first.</summary>
    public static PageRange ReadRange(JsonPlace? place, FaultList faults)
    {
        if (place is null)
            return PageRange.All;
        if (!place.IsArray)
            return ReadPage(place, faults) is var page ? new PageRange(page, page) : PageRange.All;
        if (place.Items.Length == 2)
        {
            var (from, to) = (ReadPage(place.Items[0], faults), ReadPage(place.Items[1], faults));
            if (from < 0 ? to < 0 : to < 0 || from <= to)
                return new PageRange(from, to);
        }
        faults.Add(place, "Pages are one page, or the first and the last in brackets: 1, \"last\", [2, \"last\"].");
        return PageRange.All;
    }

    private static int ReadPage(JsonPlace place, FaultList faults) => place switch
    {
        { IsString: true, Text: "first" } => 1,
        { IsString: true, Text: "last" } => -1,
        { Kind: JsonTokenType.Number } => faults.Count(place, 1, LastPage, least: 1),
        _ => Fault(place, faults),
    };

    private static int Fault(JsonPlace place, FaultList faults)
    {
        faults.Add(place, "A page is a number from 1, \"first\" or \"last\".");
        return 1;
    }

    private static NewInvoiceRule ReadNewInvoice(JsonPlace? place, FaultList faults)
    {
        if (place is null)
            return PageRule.Usual.NewInvoice;
        if (place.IsString)
        {
            faults.OneOf(place, 0, ("never", 0));
            return new NewInvoiceRule([], null);
        }
        if (!faults.IsObjectOf(place, "cue", "newValueOf"))
            return PageRule.Usual.NewInvoice;
        if (place.Members.IsEmpty)
            faults.Add(place, "Say where a new invoice begins: by a “cue”, by “newValueOf” a field, or by both.");
        return new NewInvoiceRule(
            place.Find("cue") is { } cue ? [.. faults.Texts(cue).Select(text => new Cue([text]))] : [],
            place.Find("newValueOf") is { } field ? faults.Text(field) : null);
    }
}
