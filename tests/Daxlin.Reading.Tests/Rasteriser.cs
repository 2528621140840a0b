using System.Diagnostics;

namespace Daxlin.Reading.Tests;

/// <summary>What another program draws of a page: what a person would see of it.</summary>
internal static class Rasteriser
{
    /// <summary>The points of the first page, in the plain form that the program writes, at 72 to the inch.</summary>
    /// <param name="part">Where to begin and how much to draw, in points from the upper left; all of it if left out.</param>
    public static byte[] Draw(byte[] pdf, (int Left, int Top, int Width, int Height)? part = null)
    {
        string[] only = part is var (left, top, width, height) ? ["-x", $"{left}", "-y", $"{top}", "-W", $"{width}", "-H", $"{height}"] : [];
        var start = new ProcessStartInfo("pdftoppm", ["-r", "72", .. only, "-singlefile", "-"]) { RedirectStandardInput = true, RedirectStandardOutput = true, RedirectStandardError = true };
        using var program = Process.Start(start)!;
        // What it says of damaged files must not fill its line and stop it.
        _ = program.StandardError.ReadToEndAsync();
        program.StandardInput.BaseStream.Write(pdf);
        program.StandardInput.Close();
        using var picture = new MemoryStream();
        program.StandardOutput.BaseStream.CopyTo(picture);
        program.WaitForExit();
        return picture.Length > 1000 ? picture.ToArray() : throw new InvalidOperationException("pdftoppm drew nothing.");
    }
}
