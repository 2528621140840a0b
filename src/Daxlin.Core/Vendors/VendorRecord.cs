using System.Collections.Immutable;
using Daxlin.Core.Checks;
using Daxlin.Core.Values;

namespace Daxlin.Core.Vendors;

/// <summary>What is on record of a vendor, its bank accounts left out.</summary>
/// <param name="OtherNames">Other spellings that its invoices may bear.</param>
/// <param name="TaxIds">Its tax numbers; empty while none is on record.</param>
/// <param name="Currency">ISO 4217; empty if it may be any.</param>
/// <param name="Terms">Null if none are agreed.</param>
/// <param name="LedgerAccount">What its invoices are posted to unless a line says otherwise.</param>
public sealed record VendorRecord(
    string Name, ImmutableArray<string> OtherNames, ImmutableArray<string> TaxIds, string Currency, PaymentTerms? Terms, string LedgerAccount, string TaxCode)
{
    private const int LongestName = 200;
    private const int LongestCode = 50;
    private const int MostNames = 50;

    /// <summary>All names that it goes by, its own first.</summary>
    public ImmutableArray<string> Names => OtherNames.Insert(0, Name);

    /// <summary>Says that nothing is on record but a name.</summary>
    public bool IsBare => TaxIds.IsEmpty && Currency.Length == 0 && Terms is null && LedgerAccount.Length == 0 && TaxCode.Length == 0;

    /// <summary>The record in its settled form: blanks trimmed, doubles left out, the currency in capitals; or in a sentence what is wrong with it.</summary>
    public (VendorRecord? Record, string Fault) Settled()
    {
        var name = Name.Trim();
        if (!IsName(name))
            return (null, $"A vendor's name has letters or figures, and at most {LongestName} characters.");
        ImmutableArray<string> others = [.. Given(OtherNames).DistinctBy(SeenBefore.Squash).Where(other => SeenBefore.Squash(other) != SeenBefore.Squash(name))];
        if (others.Length > MostNames || !others.All(IsName))
            return (null, $"A vendor has at most {MostNames} other spellings, each with letters or figures and at most {LongestName} characters.");
        ImmutableArray<string> taxIds = [.. Given(TaxIds).DistinctBy(TaxIdentifier.Bare)];
        if (taxIds.Length > MostNames || taxIds.Any(id => id.Length > LongestCode || TaxIdentifier.Bare(id).Length == 0))
            return (null, $"A tax number has figures or letters, and at most {LongestCode} characters.");
        if (taxIds.FirstOrDefault(TaxIdentifier.IsFaulty) is { } faulty)
            return (null, $"The check digits of the tax number {faulty} do not come out: one of its figures is wrong.");
        var currency = Currency.Trim().ToUpperInvariant();
        if (currency.Length > 0 && Values.Currency.Find(currency) is null)
            return (null, $"“{Currency}” is no currency of ISO 4217; one is EUR.");
        if (Terms is { Days: < 0 or > PaymentTerms.MostDays })
            return (null, $"Terms are 0 to {PaymentTerms.MostDays} days.");
        var (ledger, taxCode) = (LedgerAccount.Trim(), TaxCode.Trim());
        if (ledger.Length > LongestCode || taxCode.Length > LongestCode)
            return (null, $"A ledger account and a tax code have at most {LongestCode} characters.");
        return (new VendorRecord(name, others, taxIds, currency, Terms, ledger, taxCode), "");
    }

    /// <summary>What changed from another record to this one, as the history tells it; null if nothing did.</summary>
    /// <example>"changed currency, terms", "currency: nothing; terms: 30 days net", "currency: EUR; terms: 14 days net".</example>
    public (string What, string Before, string After)? ChangesFrom(VendorRecord before)
    {
        var changed = before.Parts.Zip(Parts).Where(pair => pair.First.Text != pair.Second.Text).ToList();
        return changed.Count == 0 ? null
            : ("changed " + string.Join(", ", changed.Select(pair => pair.First.Part)), Told(changed.Select(pair => pair.First)), Told(changed.Select(pair => pair.Second)));
    }

    private ImmutableArray<(string Part, string Text)> Parts =>
    [
        ("name", Name),
        ("other spellings", string.Join(" or ", OtherNames.Order(StringComparer.Ordinal))),
        ("tax numbers", string.Join(" or ", TaxIds)),
        ("currency", Currency),
        ("terms", Terms?.ToString() ?? ""),
        ("ledger account", LedgerAccount),
        ("tax code", TaxCode),
    ];

    private static string Told(IEnumerable<(string Part, string Text)> parts) => string.Join("; ", parts.Select(part => $"{part.Part}: {(part.Text.Length > 0 ? part.Text : "nothing")}"));

    private static IEnumerable<string> Given(ImmutableArray<string> texts) => texts.Select(text => text.Trim()).Where(text => text.Length > 0);

    private static bool IsName(string text) => text.Length <= LongestName && SeenBefore.Squash(text).Length > 0;
}
