using System.Collections.Frozen;
using System.Collections.Immutable;
using Daxlin.Core.Values;

namespace Daxlin.Core.Templates;

/// <summary>The settled names of header fields and columns, and what they are unless a template says otherwise.</summary>
public static class TradeNames
{
    public const string InvoiceNumber = "invoiceNumber";
    public const string InvoiceDate = "invoiceDate";
    public const string DueDate = "dueDate";
    public const string PurchaseOrder = "purchaseOrder";
    /// <summary>The number of the invoice that a credit note credits.</summary>
    public const string CreditedInvoice = "creditedInvoice";
    public const string VendorName = "vendorName";
    public const string VendorTaxId = "vendorTaxId";
    public const string Iban = "iban";
    public const string Currency = "currency";
    public const string Subtotal = "subtotal";
    public const string Discount = "discount";
    public const string Freight = "freight";
    public const string Tax = "tax";
    public const string Total = "total";
    /// <summary>What is taken off the total because it was paid before: a deposit, earlier payments.</summary>
    public const string AlreadyPaid = "alreadyPaid";
    /// <summary>What is left to pay of the total.</summary>
    public const string AmountDue = "amountDue";

    public const string ItemCode = "itemCode";
    public const string Description = "description";
    public const string Section = "section";
    public const string Quantity = "quantity";
    public const string Unit = "unit";
    public const string UnitPrice = "unitPrice";
    public const string PriceBasis = "priceBasis";
    public const string DiscountPercent = "discountPercent";
    public const string DiscountAmount = "discountAmount";
    public const string TaxRate = "taxRate";
    public const string Amount = "amount";

    public const string Rate = "rate";
    public const string Base = "base";

    /// <summary>The settled names of header fields.</summary>
    public static readonly ImmutableArray<string> Fields =
    [
        InvoiceNumber, InvoiceDate, DueDate, PurchaseOrder, CreditedInvoice, VendorName, VendorTaxId, Iban, Currency, Subtotal, Discount, Freight, Tax, Total,
        AlreadyPaid, AmountDue,
    ];

    /// <summary>The settled names of columns of item rows.</summary>
    public static readonly ImmutableArray<string> Columns =
    [
        ItemCode, Description, Section, Quantity, Unit, UnitPrice, PriceBasis, DiscountPercent, "discountPercent2", "discountPercent3",
        DiscountAmount, TaxRate, Amount,
    ];

    /// <summary>The columns of the tax summary.</summary>
    public static readonly ImmutableArray<string> TaxColumns = [Rate, Base, Amount];

    private static readonly FrozenDictionary<string, ValueKind> Kinds = new Dictionary<string, ValueKind>
    {
        [InvoiceDate] = ValueKind.Date,
        [DueDate] = ValueKind.Date,
        [Iban] = ValueKind.Iban,
        [Currency] = ValueKind.Currency,
        [Subtotal] = ValueKind.Money,
        [Discount] = ValueKind.Money,
        [Freight] = ValueKind.Money,
        [Tax] = ValueKind.Money,
        [Total] = ValueKind.Money,
        [AlreadyPaid] = ValueKind.Money,
        [AmountDue] = ValueKind.Money,
        [Quantity] = ValueKind.Number,
        [UnitPrice] = ValueKind.Price,
        [PriceBasis] = ValueKind.Number,
        [DiscountPercent] = ValueKind.Percent,
        ["discountPercent2"] = ValueKind.Percent,
        ["discountPercent3"] = ValueKind.Percent,
        [DiscountAmount] = ValueKind.Money,
        [TaxRate] = ValueKind.Percent,
        [Amount] = ValueKind.Money,
        [Rate] = ValueKind.Percent,
        [Base] = ValueKind.Money,
    }.ToFrozenDictionary();

    private static readonly FrozenSet<string> RequiredFields =
        new[] { InvoiceNumber, InvoiceDate, Currency, Total }.ToFrozenSet();

    private static readonly FrozenSet<string> RequiredColumns =
        new[] { Description, Quantity, UnitPrice, Amount, Base }.ToFrozenSet();

    /// <summary>Fields and columns of these names hold amounts that are stated on the invoice and must tie.</summary>
    public static readonly FrozenSet<string> StatedAmounts =
        new[] { Subtotal, Discount, Freight, Tax, Total }.ToFrozenSet();

    /// <summary>Columns of discounts in per cent, taken off one after another.</summary>
    public static readonly ImmutableArray<string> DiscountPercents = [DiscountPercent, "discountPercent2", "discountPercent3"];

    public static ValueKind KindOf(string name) => Kinds.GetValueOrDefault(name, ValueKind.Text);

    /// <summary>Says that no invoice is clear without this field, whatever the template says of it.</summary>
    public static bool IsRequiredField(string name) => RequiredFields.Contains(name);

    public static bool IsRequiredColumn(string name) => RequiredColumns.Contains(name);

    /// <summary>The name as it is read aloud: invoiceNumber is "invoice number".</summary>
    public static string Spoken(string name) => name switch
    {
        Iban => "IBAN",
        VendorTaxId => "vendor tax ID",
        _ => string.Concat(name.Select(c => char.IsUpper(c) ? " " + char.ToLowerInvariant(c) : c.ToString())),
    };
}
