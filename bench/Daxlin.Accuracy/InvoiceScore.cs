using System.Collections.Immutable;

namespace Daxlin.Accuracy;

/// <summary>How well one invoice was captured.</summary>
/// <param name="Cells">The names of the cells that truth states, and of those captured where truth has none.</param>
/// <param name="Wrong">Those that are not exact: name, truth and what was captured.</param>
public sealed record InvoiceScore(
    TruthInvoice Truth, ImmutableArray<string> Cells, ImmutableArray<(string Name, string? Truth, string? Captured)> Wrong, bool IsClear, string WhyHeld)
{
    /// <summary>Clear although a cell is wrong or the invoice does not add up: the worst fault.</summary>
    public bool IsFalseClear => IsClear && (!Truth.IsConsistent || !Wrong.IsEmpty);

    /// <summary>Held although the invoice adds up.</summary>
    public bool IsNeedlessHold => !IsClear && Truth.IsConsistent;
}
