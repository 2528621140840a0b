using System.Collections.Immutable;
using Daxlin.Core.Posting;
using Daxlin.Service.Batches;

namespace Daxlin.Service.Sources;

/// <summary>What was found in something that came.</summary>
/// <param name="Files">Documents, whose bytes are kept, each with the way to it.</param>
/// <param name="Others">What is no document: cover sheets, and what is left out.</param>
/// <param name="Stated">What it states that invoices come to.</param>
internal sealed record OpenedItem(ImmutableArray<(KeptFile File, string Name)> Files, ImmutableArray<SourcePart> Others, ImmutableArray<StatedTotal> Stated)
{
    /// <summary>Says that it is a cover sheet itself, and has none in it.</summary>
    public bool IsCover { get; init; }

    public bool IsEmpty => Files.IsEmpty && Others.IsEmpty;

    /// <summary>A cover sheet without an invoice says that there should be some.</summary>
    public bool WantsBatch => !Files.IsEmpty || Others.Any(part => part.Outcome == "cover");

    /// <summary>A document as it came.</summary>
    public static OpenedItem Document(KeptFile file) => new([(file, file.Name)], [], []);

    /// <summary>What is left out as a whole.</summary>
    public static OpenedItem LeftOut(string name, string why) => new([], [new SourcePart(name, "left-out", why, "")], []);
}
