using Daxlin.Reading;

namespace Daxlin.Service.Work;

/// <summary>
/// The process that reads documents, apart from the service: a PDF that runs out of memory, overflows the stack or never
/// ends takes this process down and nothing else.
/// </summary>
/// <remarks>
/// One path a line comes in on the standard input. For each, a byte goes out on the standard output: 1 and the pages, or
/// 0, a code and a sentence. It ends with its input, so it never outlives the service.
/// </remarks>
internal static class ReaderProcess
{
    public const string Argument = "read-documents";

    public static int Run()
    {
        using var output = new BinaryWriter(new BufferedStream(Console.OpenStandardOutput(), 1 << 16));
        while (Console.In.ReadLine() is { } path)
        {
            try
            {
                var pages = PdfReader.Read(File.ReadAllBytes(path));
                output.Write((byte)1);
                PageStream.Write(output, pages);
            }
            catch (UnreadableException error)
            {
                output.Write((byte)0);
                output.Write(error.Code);
                output.Write(error.Message);
            }
            output.Flush();
        }
        return 0;
    }
}
