using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Corrections;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Readings;

/// <summary>Lets the sums of an invoice decide between readings: the one way under which all of them hold, if there is one.</summary>
/// <remarks>
/// Values that stand in one sum are decided together, in every way that they can be read: that a sum comes out with two misread figures, which the other readings
/// would bring out as well, is no proof of either. Those that share no sum are none of each other's business.
/// </remarks>
internal static class SumsDecide
{
    /// <summary>So many ways in which values of one sum can be read are weighed; of more nobody decides.</summary>
    private const int MostWays = 512;

    /// <returns>The invoice with what is decided, and what is not.</returns>
    public static (CapturedInvoice Captured, ImmutableArray<ReadingDoubt> Open) Of(CapturedInvoice captured, ImmutableArray<ReadingDoubt> doubts)
    {
        if (doubts.IsEmpty)
            return (captured, []);
        var open = ImmutableArray.CreateBuilder<ReadingDoubt>();
        foreach (var together in Groups(doubts, [.. doubts.SelectMany(doubt => doubt.All.Select(value => With(captured, [(doubt.Name, value)]))).SelectMany(InvoiceChecks.TiesOf)]))
        {
            var ways = together.Aggregate(1L, (count, doubt) => Math.Min(MostWays + 1L, count * doubt.All.Length));
            var weighed = ways > MostWays ? [] : Ways(together).Select(way => (Way: way, Weight: Weight.Of(With(captured, way), together))).ToList();
            var best = weighed.Where(one => one.Weight.IsProved && weighed.TrueForAll(other => one.Weight.Wrong <= other.Weight.Wrong)).ToList();
            if (best is [var (only, _)] && weighed.TrueForAll(other => other.Way == only || !other.Weight.Holds || other.Weight.Wrong > best[0].Weight.Wrong))
                captured = With(captured, only.Select((value, index) => (value.Name, Said(value.Value, together[index], captured))));
            else
                open.AddRange(together.Select(doubt => doubt with { Ways = weighed.Exists(one => one.Weight.Stands) ? weighed.Count(one => one.Weight.IsProved) : null }));
        }
        return (captured, open.ToImmutable());
    }

    /// <summary>What speaks for one way of reading and what against it.</summary>
    /// <param name="Stands">Says that a sum contains one of the values.</param>
    /// <param name="Holds">Says that all sums that contain them come out.</param>
    /// <param name="IsProved">And that each of them stands in one.</param>
    /// <param name="Wrong">What else of the invoice does not add up: a line of a rate that the invoice does not state stands in no sum, and is found out so.</param>
    private readonly record struct Weight(bool Stands, bool Holds, bool IsProved, int Wrong)
    {
        public static Weight Of(CapturedInvoice captured, List<ReadingDoubt> doubts)
        {
            var weighed = InvoiceChecks.Check(captured);
            var own = weighed.Ties.Where(tie => doubts.Exists(doubt => tie.Members.Contains(doubt.Name))).ToList();
            var holds = own.TrueForAll(tie => tie.Holds);
            return new Weight(own.Count > 0, holds, holds && doubts.TrueForAll(doubt => weighed.Tied.Contains(doubt.Name)), weighed.Findings.Count(finding => finding.Severity == Severity.Hold));
        }
    }

    /// <summary>Doubts that stand in one sum, or in sums that share one of them.</summary>
    private static List<List<ReadingDoubt>> Groups(ImmutableArray<ReadingDoubt> doubts, List<Tie> ties)
    {
        var groups = doubts.Select(doubt => new List<ReadingDoubt> { doubt }).ToList();
        foreach (var tie in ties)
        {
            var own = groups.FindAll(group => group.Exists(doubt => tie.Members.Contains(doubt.Name)));
            if (own.Count < 2)
                continue;
            groups.RemoveAll(own.Contains);
            groups.Add([.. own.SelectMany(group => group)]);
        }
        return groups;
    }

    /// <summary>Every way in which the values can be read.</summary>
    private static IEnumerable<ImmutableArray<(string Name, CapturedValue Value)>> Ways(IEnumerable<ReadingDoubt> doubts) => doubts.Aggregate(
        (IEnumerable<ImmutableArray<(string, CapturedValue)>>)[[]],
        (ways, doubt) => ways.SelectMany(way => doubt.All.Select(value => way.Add((doubt.Name, value)))));

    private static CapturedInvoice With(CapturedInvoice captured, IEnumerable<(string Name, CapturedValue Value)> values)
    {
        var changed = values.Aggregate(captured, (invoice, one) => invoice.With(one.Name, one.Value));
        // A sum printed between the rows counts those above it as they are read now.
        return changed with { Sums = new SumsOfRows(captured).Anew(changed) };
    }

    private static CapturedValue Said(CapturedValue taken, ReadingDoubt doubt, CapturedInvoice captured)
    {
        var currency = captured.Template.Reads.Currency;
        var others = doubt.All.Where(value => value.Value != taken.Value).Select(value => ReadingDoubt.Shown(value, currency));
        return taken with { Trace = taken.Trace with { Reading = $"read as {ReadingDoubt.Shown(taken, currency)} and as {string.Join(" and as ", others)}; the sums come out with the first alone" } };
    }
}
