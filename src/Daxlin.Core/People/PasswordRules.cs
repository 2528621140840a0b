namespace Daxlin.Core.People;

/// <summary>What a password must be. Length is what makes it hard to guess; which kinds of characters it has is nobody's business.</summary>
public static class PasswordRules
{
    public const int Fewest = 12;
    public const int Most = 200;
    private const int FewestDifferent = 5;

    /// <summary>Null for a password that may be used.</summary>
    /// <param name="name">Of the person, which it must not hold.</param>
    public static string? FaultOf(string password, string name) =>
        password.Length < Fewest ? $"A password has {Fewest} characters at least; this one has {password.Length}. A sentence of some words is easy to keep in mind."
        : password.Length > Most ? $"A password has at most {Most} characters."
        : password.Distinct().Count() < FewestDifferent ? $"The password is made of {password.Distinct().Count()} different characters; it needs {FewestDifferent} at least."
        : IsSequence(password) ? "The password is one run of the alphabet, of figures or of a keyboard's row, which is guessed first."
        : name.Length >= 3 && password.Contains(name, StringComparison.OrdinalIgnoreCase) ? "The password holds the name that it belongs to."
        : null;

    private static bool IsSequence(string password) =>
        Runs.Any(run => run.Contains(password, StringComparison.OrdinalIgnoreCase));

    private static readonly string[] Runs = [.. new[] { "abcdefghijklmnopqrstuvwxyz", "0123456789", "1234567890", "qwertyuiopasdfghjklzxcvbnm", "qwertzuiopasdfghjklyxcvbnm", "azertyuiopqsdfghjklmwxcvbn" }
        .SelectMany(run => new[] { run + run + run, string.Concat((run + run + run).Reverse()) })];
}
