using System.Text.Json;
using CsCheck;
using WarmConduit.Core.Registry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Scenarios;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Tests.Rigs.Edits;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>What a question hands on to the next revision, and to edited copies, changes no answer.</summary>
public class SharedQuestionTests
{
    [Fact]
    public void Revision_after_revision_the_answers_are_those_of_a_question_that_shares_nothing()
    {
        EditGen.On(DemoRigs.Of("sparrow")).Array[8, 16].Sample(
            edits =>
            {
                var rig = DemoRigs.Of("sparrow");
                var night = Conditions.Of(rig.Brief);
                var handed = new Question(rig, night).Warm();
                foreach (var edit in edits)
                {
                    try
                    {
                        rig = Editor.Apply(rig, [edit]).Rig;
                    }
                    catch (RigFileException)
                    {
                        continue;
                    }
                    Assert.Equal(Answers(new Question(rig, night)), Answers(handed.On(rig, default)));
                    handed = handed.On(rig, default).Warm();
                }
            },
            iter: 8);

        static string Answers(Question question) => string.Join('\n', ((string[])["drainDown", "freezeLadder", "advice", "tanks", "parking", "tasks",
            "waterFlow", "hotWait", "filling", "blowOut", "antifreeze", "compressor", "procedure"]).Select(n => StudyRegistry.Named(n)!.Ask(question))
            .Concat(question.Rig.Parts.Select(p => ServiceStudy.Ask(question, new ServiceInput(p.Id))))
            .Select(a => JsonSerializer.Serialize(a, a.GetType(), RigFile.Compact)));
    }
}
