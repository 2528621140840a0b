using System.Collections.Immutable;
using Daxlin.Core.Corrections;
using Daxlin.Core.Drafting;
using Daxlin.Core.Values;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Desk;

/// <summary>What a reading process is asked to do for the desk.</summary>
/// <param name="Template">The template to try; null to draft one.</param>
/// <param name="Vendor">The vendor to draft for, or null.</param>
/// <param name="Others">Documents of other vendors, which a draft must not recognise.</param>
internal sealed record DeskTask(string? Template, string? Vendor, ImmutableArray<DeskDocument> Documents, ImmutableArray<DeskDocument> Others)
{
    /// <summary>Names of templates that are there, for a draft.</summary>
    public ImmutableArray<string> TakenNames { get; init; } = [];

    /// <summary>The value to find ways to; null for the rest.</summary>
    public PointedPlace? Pointed { get; init; }

    /// <summary>What was corrected again and again on the documents; null for the rest.</summary>
    public RepeatedTask? Repeated { get; init; }

    /// <summary>What is said of the item rows; null for the rest.</summary>
    public PointedRows? PointedRows { get; init; }
}

/// <summary>What was corrected again and again on invoices, one of each document in their order.</summary>
/// <param name="Pages">The pages of each invoice in its document.</param>
internal sealed record RepeatedTask(RepeatedCorrection Correction, ImmutableArray<PageSpan> Pages);

/// <param name="First">From 1.</param>
internal sealed record PageSpan(int First, int Last);

/// <summary>A change that would mend a template; the same as <see cref="TaughtChange"/>.</summary>
internal sealed record TaughtChangeRecord(string Says, string Document);

/// <summary>Where a person points at, on the first of the documents.</summary>
/// <param name="Kind">The kind of value, for a name of the template's own.</param>
internal sealed record PointedPlace(int Page, BoxRecord Box, string Field, ValueKind Kind);

/// <summary>What a person says of the item rows, on the first of the documents.</summary>
/// <param name="Box">Null where nothing is pointed at.</param>
internal sealed record PointedRows(int Page, BoxRecord? Box, RowMeaning What, string? Column);

/// <summary>A document in the store.</summary>
/// <param name="Path">Where its bytes are.</param>
/// <param name="Recognised">The folder of what was recognised of its pages.</param>
/// <param name="File">Its name as received.</param>
internal sealed record DeskDocument(string Path, string Sha256, string Recognised, string File)
{
    public static DeskDocument Of(DocumentStore documents, string sha256, string file) => new(documents.PathOf(sha256), sha256, documents.RecognisedOf(sha256), file);
}
