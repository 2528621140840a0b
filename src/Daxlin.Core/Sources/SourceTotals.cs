using System.Collections.Immutable;
using System.IO.Enumeration;

namespace Daxlin.Core.Sources;

/// <summary>Where it is stated what the invoices come to that come from a source.</summary>
/// <param name="Covers">What cover sheets are called, with <c>*</c> and <c>?</c>; upper and lower case are alike. Empty if there are none.</param>
/// <param name="Subject">How subjects of messages state it; null if they do not.</param>
public sealed record SourceTotals(ImmutableArray<string> Covers, SubjectTotals? Subject)
{
    /// <summary>Where nothing is stated.</summary>
    public static SourceTotals None { get; } = new([], null);

    /// <summary>The longest cover sheet, in bytes.</summary>
    public const int LongestCover = 256 * 1024;

    public bool IsCover(string name) => Covers.Any(cover => FileSystemName.MatchesSimpleExpression(cover, name, ignoreCase: true));

    public IEnumerable<string> Says =>
    [
        .. Covers.Length > 0 ? [$"A file named {string.Join(" or ", Covers)} is a cover sheet: it states what the invoices beside it come to."] : Array.Empty<string>(),
        .. Subject is { } subject ? [$"A subject with “{subject.Pattern}” in it states what the message's invoices come to{(subject.Currency.Length > 0 ? $", in {subject.Currency} where it says no currency" : "")}."] : Array.Empty<string>(),
    ];
}
