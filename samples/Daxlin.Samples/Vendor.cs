using System.Globalization;

namespace Daxlin.Samples;

/// <summary>A made-up vendor of Kestrel Sound Ferries: what it sells, how it writes, and how its invoices look.</summary>
public abstract class Vendor
{
    /// <summary>Its folder under samples/.</summary>
    public abstract string Folder { get; }
    public abstract string Name { get; }
    public abstract string TaxId { get; }

    /// <summary>In groups of four, its check digits right; the bank is made up.</summary>
    public abstract string Iban { get; }
    public abstract string Currency { get; }
    public abstract Assortment Sells { get; }

    /// <summary>What is printed wrong on one invoice of its set in the demo.</summary>
    public abstract Fault UsualFault { get; }

    /// <summary>Says that its invoices are printed by a browser, which must be there.</summary>
    public virtual bool IsSlow => false;

    /// <summary>Says that an order discount is printed with a minus before it.</summary>
    public virtual bool PrintsDiscountAsMinus => false;

    public abstract string NumberOf(int sequence);

    /// <summary>Draws the invoice as a PDF and says how many pages it has.</summary>
    public abstract int Draw(MadeInvoice invoice, string path);

    /// <summary>Groups of three parted by <paramref name="group"/>, two decimals after <paramref name="mark"/>.</summary>
    protected static string Number(decimal amount, string group, string mark, int decimals = 2) => amount
        .ToString("N" + decimals, CultureInfo.InvariantCulture)
        .Replace(",", "\u0001", StringComparison.Ordinal)
        .Replace(".", mark, StringComparison.Ordinal)
        .Replace("\u0001", group, StringComparison.Ordinal);

    protected static string Plain(decimal number, string mark) =>
        number.ToString("0.##", CultureInfo.InvariantCulture).Replace(".", mark, StringComparison.Ordinal);
}
