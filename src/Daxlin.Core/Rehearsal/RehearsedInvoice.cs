using System.Collections.Immutable;

namespace Daxlin.Core.Rehearsal;

/// <summary>What was captured from an invoice, as texts, before a template changes or after.</summary>
/// <param name="Fields">Header values by name; the kind of document is one of them, <c>isCreditNote</c>.</param>
/// <param name="Rows">In printed order, list by list.</param>
public sealed record RehearsedInvoice(RehearsedState State, ImmutableSortedDictionary<string, string> Fields, ImmutableArray<RehearsedRow> Rows)
{
    /// <summary>The template that captured it; one that was renamed has its new name.</summary>
    public string Template { get; init; } = "";

    /// <summary>An invoice that no template recognises.</summary>
    public static RehearsedInvoice Unplaced { get; } = new(RehearsedState.Unplaced, ImmutableSortedDictionary<string, string>.Empty, []);
}
