using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Drift;

/// <summary>Finds where the newest invoices of a template miss what used to be found.</summary>
/// <remarks>
/// Looked at is the last run of invoices that are alike in one thing: all without a due date, all found by the second of two
/// whereabouts, all held. It is a sign of a changed layout if, were the same invoices shuffled, so long a run would come last
/// less than once in two hundred times: of n invoices of which m are so, the last k all are with the chance
/// m/n · (m−1)/(n−1) · … (Fisher's exact test, 1935; nothing is supposed of how often a vendor prints what). Three invoices
/// without a due date are a sign after ten with one, two after thirty. What comes anew, as freight, is no sign: only what is
/// missed can be wrong unseen.
/// </remarks>
public static class DriftNotices
{
    private const double Chance = 0.005;

    /// <summary>One invoice is an exception, whatever was before.</summary>
    private const int ShortestRun = 2;

    /// <param name="invoices">Of one version of one template, in the order in which they were taken in.</param>
    public static ImmutableArray<DriftNotice> Of(ImmutableArray<InvoiceTraits> invoices)
    {
        var notices = ImmutableArray.CreateBuilder<DriftNotice>();
        foreach (var name in invoices.SelectMany(invoice => invoice.Found.Keys).Distinct().Order(StringComparer.Ordinal))
        {
            var ways = invoices.Select(invoice => invoice.Found.GetValueOrDefault(name)).ToList();
            if (RunOf(invoices.Length, index => ways[index] == ways[^1]) is not { } since)
                continue;
            var (last, before) = (ways[^1], ways[..since].OfType<string>().CountBy(way => way).OrderByDescending(way => way.Value).FirstOrDefault());
            if (before.Key is null)
                continue;
            notices.Add(new DriftNotice(
                name,
                last is null
                    ? $"{Spoken(name)} was found on {ways[..since].Count(way => way is not null)} of {since} invoices; on the last {invoices.Length - since} it is not."
                    : $"{Spoken(name)} was found {before.Key} on {before.Value} of {since} invoices; on the last {invoices.Length - since} it is found {last}.",
                since));
        }
        if (invoices is [.., { IsHeld: true }] && RunOf(invoices.Length, index => invoices[index].IsHeld) is { } held)
            notices.Add(new DriftNotice("", $"{invoices.Take(held).Count(invoice => invoice.IsHeld)} of {held} invoices were held; the last {invoices.Length - held} all are.", held));
        return notices.ToImmutable();
    }

    private static string Spoken(string name) =>
        ValueNames.ColumnOf(name) is { } column ? $"The column {TradeNames.Spoken(column)}" : $"The {TradeNames.Spoken(name)}";

    /// <summary>Where the last run of invoices begins that are alike, if it is no chance; else null.</summary>
    private static int? RunOf(int all, Func<int, bool> isAlike)
    {
        var since = all;
        while (since > 0 && isAlike(since - 1))
            since--;
        if (all - since < ShortestRun || since == 0)
            return null;
        var alike = Enumerable.Range(0, all).Count(isAlike);
        var chance = Enumerable.Range(0, all - since).Aggregate(1.0, (product, index) => product * (alike - index) / (all - index));
        return chance < Chance ? since : null;
    }
}
