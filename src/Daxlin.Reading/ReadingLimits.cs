namespace Daxlin.Reading;

/// <summary>How much of one document is read before it is refused, so that no file can hold up the rest of a batch.</summary>
/// <param name="Pages">Most pages.</param>
/// <param name="LettersPerPage">Most letters on one page.</param>
/// <param name="StreamBytes">Most bytes that one packed stream may unpack to.</param>
/// <param name="DocumentBytes">Most bytes that all packed streams of a document may unpack to.</param>
public sealed record ReadingLimits(int Pages, int LettersPerPage, long StreamBytes, long DocumentBytes)
{
    /// <summary>Far above any invoice seen, far below what would hurt: 500 pages, 200,000 letters a page, 64 MB a stream.</summary>
    public static ReadingLimits Usual { get; } = new(500, 200_000, 64L << 20, 256L << 20);
}
