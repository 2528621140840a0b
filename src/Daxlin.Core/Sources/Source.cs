using System.Collections.Immutable;

namespace Daxlin.Core.Sources;

/// <summary>Where invoices come from by themselves, and into which batch each goes.</summary>
/// <param name="Name">Small letters, digits and hyphens.</param>
public sealed record Source(string Name, BatchNaming Batch, SourceWay Way)
{
    /// <summary>Where it is stated what its invoices come to.</summary>
    public SourceTotals Totals { get; init; } = SourceTotals.None;

    /// <summary>The template that its invoices are for: it decides between those that know one, and what it does not know is held. Empty for none.</summary>
    public string Template { get; init; } = "";

    /// <summary>When it is looked at by itself; null for always.</summary>
    public LookingHours? Hours { get; init; }

    /// <summary>What is done with it, in sentences.</summary>
    public ImmutableArray<string> Says => [.. Way.Says, .. Totals.Says, .. Hours is { } hours ? [hours.Says] : Array.Empty<string>(), $"What is taken in goes into the batch {Batch.Says}.", .. Template.Length > 0 ? [$"Its invoices are for the template “{Template}”; one on which that template's cues do not stand is held."] : Array.Empty<string>()];
}
