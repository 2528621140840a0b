using Daxlin.Core.Checks;

namespace Daxlin.Core.Capture;

/// <summary>A file that is damaged in its build and was read all the same.</summary>
public static class MendedFile
{
    /// <summary>The code of its finding.</summary>
    public const string Code = "file-mended";

    /// <param name="fault">What is not as the file says, without a full stop.</param>
    public static Finding ToFinding(string fault) => new(
        Code, Severity.Note, $"The file is damaged: {fault}. It was read by looking through all of it; see whether all of its pages are there.", []);
}
