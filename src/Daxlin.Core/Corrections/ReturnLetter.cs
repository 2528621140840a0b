using System.Collections.Immutable;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Corrections;

/// <summary>What a vendor is told when an invoice goes back: which invoice, and what is wrong with it, in figures.</summary>
public static class ReturnLetter
{
    /// <summary>What the message is called that it is sent as.</summary>
    /// <param name="number">The invoice's; empty if it is not known.</param>
    public static string SubjectOf(string number) => $"Your invoice {(number.Length > 0 ? number + " " : "")}goes back to you";

    /// <param name="fields">Header values by name, in their settled form.</param>
    /// <param name="currency">Of the total.</param>
    /// <param name="reason">In the clerk's words.</param>
    /// <param name="findings">The sentences of what holds it.</param>
    public static string Of(string vendor, IReadOnlyDictionary<string, string> fields, string currency, string reason, ImmutableArray<string> findings)
    {
        string Part(string words, string name) => fields.TryGetValue(name, out var value) && value.Length > 0 ? words + value : "";
        var invoice = "your invoice" + Part(" ", TradeNames.InvoiceNumber) + Part(" of ", TradeNames.InvoiceDate)
            + Part(" on our order ", TradeNames.PurchaseOrder) + (fields.TryGetValue(TradeNames.Total, out var stated) && SettledForm.Number(stated) is { } total
                ? $" over {(Currency.Find(currency) is { } known ? known.Show(total) : $"{stated} {currency}")}" : "");
        var lines = new List<string> { $"To {(vendor.Length > 0 ? vendor : "the vendor")}", "", $"We return {invoice}: {reason.TrimEnd('.')}." };
        if (!findings.IsEmpty)
            lines.AddRange(["", "What does not agree:", .. findings.Select(finding => "- " + finding)]);
        lines.AddRange(["", "Please send a corrected invoice. This one is not paid.", ""]);
        return string.Join('\n', lines);
    }
}
