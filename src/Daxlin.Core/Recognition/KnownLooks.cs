using System.Collections.Immutable;

namespace Daxlin.Core.Recognition;

/// <summary>What an invoice that came before looks like, and whose it is, or looks to be.</summary>
public sealed record KnownLooks(string Vendor, InvoiceLooks Looks)
{
    /// <summary>Whose an invoice that no template recognises looks to be.</summary>
    /// <remarks>
    /// Vendors that write with the same program have invoices that look alike, so what it looks like decides between the names
    /// that stand on it only; an invoice whose vendor's name is a picture goes by its looks alone.
    /// </remarks>
    /// <param name="names">What can be the vendor's name on it, the most likely first.</param>
    /// <param name="known">Those that came before.</param>
    /// <returns>Empty if nothing tells.</returns>
    public static string VendorOf(ImmutableArray<string> names, InvoiceLooks looks, IEnumerable<KnownLooks> known)
    {
        // The first one's name can have been misread; those that are like it outvote it.
        var votes = new Dictionary<string, double>(StringComparer.OrdinalIgnoreCase);
        foreach (var (vendor, other) in known)
        {
            if (vendor.Length > 0 && (names.IsEmpty || names.Contains(vendor, StringComparer.OrdinalIgnoreCase)) && looks.LikenessTo(other) is var likeness and >= InvoiceLooks.OneVendors)
                votes[vendor] = votes.GetValueOrDefault(vendor) + likeness;
        }
        return votes.Count > 0 ? votes.MaxBy(vote => vote.Value).Key : names.FirstOrDefault("");
    }
}
