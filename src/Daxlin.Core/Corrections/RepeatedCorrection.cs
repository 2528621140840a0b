using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Corrections;

/// <summary>What was corrected in the same way on several invoices that one version of a template captured: the template may be mended.</summary>
/// <param name="Name">A field, <c>total</c>; a column, <c>lines[].unitPrice</c>; or the block of struck rows, <c>goods</c>.</param>
/// <param name="Of">One of each invoice, in the order of their numbers.</param>
public sealed record RepeatedCorrection(CorrectedWhat What, string Name, ImmutableArray<CorrectedOnce> Of)
{
    /// <summary>A slip happens once, and twice by chance; so many times it is the rule.</summary>
    public const int FewestInvoices = 3;

    /// <example>The due date was entered by hand on 3 invoices.</example>
    public string Says => $"{Subject} on {Of.Length} invoices.";

    private string Subject => What switch
    {
        CorrectedWhat.Entered => $"The {Spoken} was entered by hand",
        CorrectedWhat.Struck => $"A row of the block {Name} was struck out",
        _ => $"The {Spoken}, which no sum holds, was let pass",
    };

    private string Spoken => ValueNames.ColumnOf(Name) is { } column ? $"{TradeNames.Spoken(column)} of a row" : TradeNames.Spoken(Name);

    /// <summary>What was corrected on enough invoices, most often first.</summary>
    public static ImmutableArray<RepeatedCorrection> In(IEnumerable<SaidOfInvoice> invoices)
    {
        var all = invoices.OrderBy(one => one.Invoice).SelectMany<SaidOfInvoice, (CorrectedWhat What, string Name, CorrectedOnce Once)>(
            said =>
            [
                .. said.Mended.Select(one => (CorrectedWhat.Entered, ValueNames.ColumnOfValue(one.Name), new CorrectedOnce(said.Invoice, one.Value, one.Place))),
                .. said.Struck.Select(row => (CorrectedWhat.Struck, row.Block, new CorrectedOnce(said.Invoice, "", row.Place))),
                .. said.PassedAmounts.Select(name => (CorrectedWhat.Passed, ValueNames.ColumnOfValue(name), new CorrectedOnce(said.Invoice, "", null))),
            ]);
        return
        [
            .. all.GroupBy(one => (one.What, one.Name))
                .Select(group => new RepeatedCorrection(group.Key.What, group.Key.Name, [.. group.Select(one => one.Once).DistinctBy(once => once.Invoice)]))
                .Where(one => one.Of.Length >= FewestInvoices)
                .OrderByDescending(one => one.Of.Length).ThenBy(one => one.Name, StringComparer.Ordinal),
        ];
    }
}

/// <summary>What a person did.</summary>
public enum CorrectedWhat
{
    /// <summary>A value was entered.</summary>
    Entered,

    /// <summary>A row was struck out.</summary>
    Struck,

    /// <summary>An amount that no sum holds was let pass.</summary>
    Passed,
}

/// <param name="Value">What was entered, in its settled form.</param>
/// <param name="Place">Where it was pointed at, or where the first value of the struck row is printed; null if that is not known.</param>
public sealed record CorrectedOnce(int Invoice, string Value, PlaceOnPage? Place);
