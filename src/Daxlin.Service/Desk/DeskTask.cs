using System.Collections.Immutable;
using Daxlin.Core.Drafting;
using Daxlin.Core.Values;
using Daxlin.Service.Invoices;

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

    /// <summary>What is said of the item rows; null for the rest.</summary>
    public PointedRows? PointedRows { get; init; }
}

/// <summary>Where a person points at, on the first of the documents.</summary>
/// <param name="Kind">The kind of value, for a name of the template's own.</param>
internal sealed record PointedPlace(int Page, BoxRecord Box, string Field, ValueKind Kind);

/// <summary>What a person says of the item rows, on the first of the documents.</summary>
/// <param name="Box">Null where nothing is pointed at.</param>
internal sealed record PointedRows(int Page, BoxRecord? Box, RowMeaning What, string? Column);

/// <summary>A document in the store.</summary>
/// <param name="Path">Where its bytes are.</param>
/// <param name="File">Its name as received.</param>
internal sealed record DeskDocument(string Path, string Sha256, string File);
