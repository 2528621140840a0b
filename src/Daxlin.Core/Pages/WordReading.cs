using System.Collections.Immutable;

namespace Daxlin.Core.Pages;

/// <summary>What recognisers made of a word in a picture. A word of a text layer has none: it is what the file says it is.</summary>
/// <param name="Others">What it was read as otherwise than its text says; empty where all who looked read it alike.</param>
/// <param name="IsTwice">Says that two recognisers looked at it.</param>
public sealed record WordReading(ImmutableArray<string> Others, bool IsTwice)
{
    /// <summary>Read alike by two recognisers of different kinds.</summary>
    public bool IsSure => IsTwice && Others.IsEmpty;

    /// <summary>The same where one of the others is taken: what was taken before becomes one of them.</summary>
    public WordReading Taking(string text, string before) => this with { Others = Others.Contains(text) ? Others.Replace(text, before) : Others };

    public bool Equals(WordReading? other) => other is not null && IsTwice == other.IsTwice && Others.SequenceEqual(other.Others);

    public override int GetHashCode() => HashCode.Combine(IsTwice, Others.Length);
}
