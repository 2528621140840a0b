using System.Text;

namespace Daxlin.Service.Posting.Files;

/// <summary>A file that a layout wrote.</summary>
/// <param name="Encoding">Of a text; null for a file that is none.</param>
/// <param name="Records">How many records it holds, headings left out.</param>
internal sealed record WrittenFile(string Name, string MediaType, Encoding? Encoding, int Records, byte[] Content);
