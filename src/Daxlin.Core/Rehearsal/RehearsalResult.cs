using System.Collections.Immutable;

namespace Daxlin.Core.Rehearsal;

/// <summary>What a change of templates would do to one invoice.</summary>
/// <param name="Changes">Value by value; empty for an invoice that was unplaced before or would be.</param>
public sealed record RehearsalResult(Verdict Verdict, ImmutableArray<ValueChange> Changes)
{
    /// <summary>Compares what was captured with what would be.</summary>
    public static RehearsalResult Of(RehearsedInvoice before, RehearsedInvoice after)
    {
        if (before.State == RehearsedState.Unplaced)
            return new RehearsalResult(after.State == RehearsedState.Unplaced ? Verdict.Same : Verdict.Better, []);
        if (after.State == RehearsedState.Unplaced)
            return new RehearsalResult(Verdict.Lost, []);
        ImmutableArray<ValueChange> changes = [.. ChangesOf("", before.Fields, after.Fields), .. ChangesOf(before.Rows, after.Rows)];
        // By another vendor's template nothing of it is right, whatever the figures.
        if (before.Template != after.Template)
            return new RehearsalResult(Verdict.Lost, changes);
        var verdict = (before.State, changes.IsEmpty) switch
        {
            (RehearsedState.Decided, false) => Verdict.DecidedChanges,
            (RehearsedState.Clear, false) => Verdict.ClearChanges,
            (RehearsedState.Held, _) when after.State == RehearsedState.Clear => Verdict.Better,
            (RehearsedState.Held, false) => Verdict.HeldChanges,
            (RehearsedState.Clear or RehearsedState.Decided, true) when after.State == RehearsedState.Held => Verdict.Worse,
            _ => Verdict.Same,
        };
        return new RehearsalResult(verdict, changes);
    }

    private static IEnumerable<ValueChange> ChangesOf(
        string of, ImmutableSortedDictionary<string, string> before, ImmutableSortedDictionary<string, string> after) =>
        from name in before.Keys.Union(after.Keys).Order(StringComparer.Ordinal)
        let change = new ValueChange(of + name, before.GetValueOrDefault(name, ""), after.GetValueOrDefault(name, ""))
        where change.Before != change.After
        select change;

    private static IEnumerable<ValueChange> ChangesOf(ImmutableArray<RehearsedRow> before, ImmutableArray<RehearsedRow> after)
    {
        foreach (var list in before.Concat(after).Select(row => row.List).Distinct())
        {
            foreach (var (old, next) in RowAlignment.Of([.. before.Where(row => row.List == list)], [.. after.Where(row => row.List == list)]))
            {
                if (old is null)
                    yield return new ValueChange($"{list}[{next!.Number}]", "", next.Text);
                else if (next is null)
                    yield return new ValueChange($"{list}[{old.Number}]", old.Text, "");
                else
                {
                    foreach (var change in ChangesOf($"{list}[{old.Number}].", old.Cells, next.Cells))
                        yield return change;
                }
            }
        }
    }
}
