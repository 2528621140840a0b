using System.Collections.Immutable;
using System.Text;
using Daxlin.Core.Json;

namespace Daxlin.Core.Sources;

/// <summary>Fills in what an answer says.</summary>
public static class AnswerText
{
    /// <summary>The names that may stand in braces: the message's subject, a line for each invoice, and how many there are of each kind.</summary>
    public static ImmutableArray<string> Names { get; } = ["subject", "list", "counts"];

    /// <summary>Those in a text that are none of <see cref="Names"/>.</summary>
    public static IEnumerable<string> Unknown(string text) => NamesInBraces.Of(text).Where(name => !Names.Contains(name));

    /// <param name="subject">Of the message that is answered.</param>
    /// <param name="disagreements">What its invoices do not come to that was stated, in sentences; told with the counts.</param>
    public static string Fill(string text, string subject, IReadOnlyList<AnsweredInvoice> invoices, IReadOnlyList<string> disagreements) => NamesInBraces.Fill(text, name => name switch
    {
        "subject" => subject,
        "list" => List(invoices),
        "counts" => string.Join(" ", disagreements.Prepend(Counts(invoices))),
        _ => null,
    });

    private static string List(IReadOnlyList<AnsweredInvoice> invoices)
    {
        var list = new StringBuilder();
        foreach (var one in invoices)
        {
            list.Append("- ").Append(one.Name);
            if (one.Total.Length > 0)
                list.Append(", ").Append(one.Total);
            list.Append(": ").AppendLine(one.State switch
            {
                "clear" => "taken in.",
                "held" => "taken in, to be looked at. " + one.Why,
                "unplaced" => "taken in, to be looked at: no template knows it yet.",
                "unreadable" => "cannot be read. " + one.Why,
                _ => "not taken. " + one.Why,
            });
        }
        return list.ToString().TrimEnd();
    }

    /// <remarks>2 taken in, 1 to be looked at, 1 not taken.</remarks>
    private static string Counts(IReadOnlyList<AnsweredInvoice> invoices)
    {
        (int Count, string Says)[] counts =
        [
            (invoices.Count(one => one.State == "clear"), "taken in"), (invoices.Count(one => one.State is "held" or "unplaced"), "to be looked at"),
            (invoices.Count(one => one.State is "unreadable" or "left-out"), "not taken"),
        ];
        var said = string.Join(", ", counts.Where(one => one.Count > 0).Select(one => $"{one.Count} {one.Says}"));
        return said.Length == 0 ? "Nothing was in it." : said + ".";
    }
}
