using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Daxlin.Core.Electronic;

namespace Daxlin.Core.Capture;

/// <summary>What is known of a document beside its pages.</summary>
/// <param name="FileName">As received, without any folder.</param>
/// <param name="BatchName">The batch that it was taken in with.</param>
/// <param name="ReceivedOn">The day it was received, in UTC; null if unknown.</param>
public sealed record DocumentFacts(string FileName, string BatchName, DateOnly? ReceivedOn)
{
    public static DocumentFacts Unknown { get; } = new("", "", null);

    /// <summary>The electronic invoices that it carries, as witnesses of what its pages say.</summary>
    public ImmutableArray<ElectronicFile> Electronic { get; init; } = [];

    /// <summary>What is wrong with the build of the file, which was read all the same; empty if it is whole.</summary>
    public string Mended { get; init; } = "";

    /// <summary>The electronic invoice that it is, on the pages that it was set on; null for a document with pages of its own.</summary>
    [JsonIgnore]
    public ElectronicSheet? Plain { get; init; }
}
