using System.Collections.Immutable;

namespace Daxlin.Service.Desk;

/// <summary>What a reading process is asked to do for the desk.</summary>
/// <param name="Template">The template to try; null to draft one.</param>
/// <param name="Vendor">The vendor to draft for, or null.</param>
/// <param name="Others">Documents of other vendors, which a draft must not recognise.</param>
internal sealed record DeskTask(string? Template, string? Vendor, ImmutableArray<DeskDocument> Documents, ImmutableArray<DeskDocument> Others);

/// <summary>A document in the store.</summary>
/// <param name="Path">Where its bytes are.</param>
/// <param name="File">Its name as received.</param>
internal sealed record DeskDocument(string Path, string Sha256, string File);
