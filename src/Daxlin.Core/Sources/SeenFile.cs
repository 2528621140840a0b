using System.Globalization;

namespace Daxlin.Core.Sources;

/// <summary>A file of a watched folder as it was seen.</summary>
/// <param name="Place">From the folder on, with <c>/</c> between folders.</param>
/// <param name="Length">In bytes.</param>
/// <param name="Modified">When it was last written to, as the folder's machine says.</param>
public sealed record SeenFile(string Place, long Length, DateTime Modified)
{
    /// <summary>Its size and time, by which it is known as long as it stays as it is.</summary>
    public string Stamp => string.Create(CultureInfo.InvariantCulture, $"{Length} {Modified.Ticks}");
}
