using Microsoft.IO;

namespace Daxlin.Service.Posting.Files;

/// <summary>Memory for files that are being written, in small pieces: a file that doubles its memory as it grows takes thrice its size.</summary>
internal static class MemoryOfFiles
{
    /// <summary>Small, since a run may write a file for each of thousands of invoices, all at once.</summary>
    private const int Piece = 4096;

    /// <summary>So much is kept for the next run.</summary>
    private const int Kept = 4 << 20;

    private static readonly RecyclableMemoryStreamManager Pieces = new(new RecyclableMemoryStreamManager.Options { BlockSize = Piece, MaximumSmallPoolFreeBytes = Kept });

    public static MemoryStream New() => Pieces.GetStream();
}
