namespace Daxlin.Cli;

/// <summary>A command cannot go on; the message is a sentence for a clerk.</summary>
/// <param name="code">The interface's stable code, or empty.</param>
internal sealed class RefusedException(string sentence, string code = "", int exitCode = ExitCodes.Refused) : Exception(sentence)
{
    public string Code { get; } = code;
    public int ExitCode { get; } = exitCode;
}
