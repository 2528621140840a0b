using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Capture;

namespace Daxlin.Core.Checks;

/// <summary>How far an invoice's numbers are proved, in one line.</summary>
/// <param name="Numbers">All captured numbers.</param>
/// <param name="Tied">How many of them stand in a sum that holds.</param>
/// <param name="Unproved">The names of those that stand in no sum.</param>
public sealed record Proof(int Numbers, int Tied, ImmutableArray<string> Unproved)
{
    private const int MostNamed = 3;

    public static Proof Of(CheckedInvoice invoice)
    {
        var inTies = invoice.Ties.SelectMany(tie => tie.Members).ToHashSet();
        inTies.UnionWith(invoice.Captured.Values.Where(one => one.Value.Number is not null).Select(one => one.Name));
        inTies.UnionWith(invoice.Unproved);
        return new Proof(inTies.Count, invoice.Tied.Count, invoice.Unproved);
    }

    /// <example>All 37 numbers stand in sums that hold.</example>
    /// <example>35 of 39 numbers stand in sums that hold; 2 are checked by no sum (row 4, tax rate; row 9, unit price); 2 stand in sums that do not come out.</example>
    public string Sentence
    {
        get
        {
            if (Numbers == 0)
                return "No number was captured.";
            var open = Numbers - Tied - Unproved.Length;
            var parts = new List<string>
            {
                Tied == Numbers ? Numbers == 1 ? "The one number stands in a sum that holds" : $"All {Text(Numbers)} numbers stand in sums that hold"
                    : $"{Text(Tied)} of {Text(Numbers)} numbers {(Tied == 1 ? "stands in a sum that holds" : "stand in sums that hold")}",
            };
            if (Unproved.Length > 0)
            {
                parts.Add($"{Text(Unproved.Length)} {(Unproved.Length == 1 ? "is" : "are")} checked by no sum ("
                    + string.Join("; ", Unproved.Take(MostNamed).Select(ValueNames.Spoken)) + (Unproved.Length > MostNamed ? "; …)" : ")"));
            }
            if (open > 0)
                parts.Add($"{Text(open)} {(open == 1 ? "stands" : "stand")} in sums that do not come out");
            return string.Join("; ", parts) + ".";
        }
    }

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
}
