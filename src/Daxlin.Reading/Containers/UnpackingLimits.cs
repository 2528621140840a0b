namespace Daxlin.Reading.Containers;

/// <summary>How much of an archive or a message is unpacked, so that none fills the disk.</summary>
/// <param name="Deep">Most containers within containers: a message with an archive is 2.</param>
/// <param name="Files">Most files in all.</param>
/// <param name="FileBytes">Most bytes of one file.</param>
/// <param name="Bytes">Most bytes of all files.</param>
public sealed record UnpackingLimits(int Deep, int Files, long FileBytes, long Bytes)
{
    /// <summary>4 deep, 1,000 files, 50 MB a file as for any document, 500 MB in all.</summary>
    public static UnpackingLimits Usual { get; } = new(4, 1000, 50L << 20, 500L << 20);
}
